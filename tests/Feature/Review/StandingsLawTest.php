<?php

declare(strict_types=1);

namespace Tests\Feature\Review;

use App\Models\Ruling;
use App\Models\Tally;
use App\Rulings\CoveredFindings;
use App\Rulings\FindingSet\Filter;
use App\Rulings\FindingSet\FilteredFindings;
use App\Rulings\FindingSet\RowsOfGroup;
use App\Rulings\FindingSet\RuledFindings;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/** Whatever people rule and undo, in any order: the newest act that covers a finding and was not undone stands. */
final class StandingsLawTest extends TestCase
{
    private const ACTS = 45;

    /** @var list<array{id: int, scope: string, target: string, decision: string, undone: bool}> */
    private array $acts = [];

    public function test_the_newest_act_that_was_not_undone_stands(): void
    {
        mt_srand(20_261_125);
        $tally = $this->tallied(
            $this->register('fee', ['1.50', '2.50', '3.50', '4.50'], 'A'),
            $this->register('fee', ['1.5', '2.5', '3.50', '4.50'], 'B'),
        );
        // Two patterns (four cells of "holder", two of "fee") and two missing rows.
        $findings = $this->findings($tally);
        self::assertCount(8, $findings);
        for ($act = 0; $act < self::ACTS; $act++) {
            $this->actAtRandom($tally);
            $expected = array_map($this->newestOver(...), $findings);
            self::assertSame($expected, array_column($this->findings($tally), 'decision', 'id'), "after act {$act}");
            self::assertSame($this->counted($expected), $this->told($tally), "figures after act {$act}");
            $act % 4 === 3 && $this->filtersMean($tally, $findings, $expected);
        }
        self::assertGreaterThan(5, count(array_filter($this->acts, static fn(array $act): bool => $act['undone'])));
    }

    /**
     * Few or many, all or a stretch: however they are looked up, a filter by ruling or act means the same cells.
     *
     * @param  array<string, array{id: string, scope: string, sequence: int, groupScope: string, group: string}>  $findings
     * @param  array<string, string>  $expected
     */
    private function filtersMean(Tally $tally, array $findings, array $expected): void
    {
        $acts = array_filter($this->acts, static fn(array $act): bool => ! $act['undone']);
        foreach ([0, 20_000] as $few) {
            $ruled = new RuledFindings(new CoveredFindings(DB::connection()), $few);
            $filtered = new FilteredFindings(DB::connection(), $ruled, new RowsOfGroup(DB::connection()));
            foreach ([true, false] as $isStreamed) {
                foreach (['cell', 'row'] as $scope) {
                    $meant = static fn(array $terms): array => $filtered
                        ->query($tally, Filter::from(['of' => "{$scope}s", ...$terms]), $isStreamed)
                        ->when($scope === 'row', static fn(Builder $rows) => $rows->where('f.class', 'missing'))
                        ->pluck('f.sequence')
                        ->all();
                    foreach (['expected', 'defect', 'ask', 'open'] as $ruling) {
                        $so = array_filter(
                            $findings,
                            static fn(array $finding): bool => $finding['scope'] === $scope && $expected[$finding['id']] === $ruling,
                        );
                        self::assertEqualsCanonicalizing(array_column($so, 'sequence'), $meant(['ruling' => $ruling]));
                    }
                    foreach (array_slice($acts, -3) as $act) {
                        $by = array_filter(
                            $findings,
                            fn(array $finding): bool => $finding['scope'] === $scope && $this->actOver($finding) === $act['id'],
                        );
                        self::assertEqualsCanonicalizing(array_column($by, 'sequence'), $meant(['act' => $act['id']]));
                    }
                }
            }
        }
    }

    private function actAtRandom(Tally $tally): void
    {
        $standing = array_keys(array_filter($this->acts, static fn(array $act): bool => ! $act['undone']));
        if ($standing !== [] && mt_rand(1, 4) === 1) {
            $undone = $standing[array_rand($standing)];
            $this->api('POST', "/rulings/{$this->acts[$undone]['id']}/undo")->assertCreated();
            $this->acts[$undone]['undone'] = true;

            return;
        }
        $findings = array_values($this->findings($tally));
        $one = $findings[mt_rand(0, count($findings) - 1)];
        [$scope, $target] = mt_rand(0, 1) === 0 ? [$one['scope'], (string) $one['sequence']] : [$one['groupScope'], $one['group']];
        $decision = ['expected', 'defect', 'ask', 'open'][mt_rand(0, 3)];
        $about = ['scope' => $scope, 'target' => $target];
        if ($scope === 'cell' && mt_rand(0, 1) === 0) {
            $chosen = array_column(
                array_filter($findings, static fn(array $finding): bool => $finding['scope'] === 'cell' && mt_rand(0, 1) === 0),
                'sequence',
            );
            [$scope, $target] = ['selection', ' '.implode(' ', [...$chosen, $one['sequence']]).' '];
            $about = ['scope' => $scope, 'filter' => ['of' => 'cells', 'sequences' => [...$chosen, $one['sequence']]]];
        }
        $id = $this->number(
            $this->api('POST', "/tallies/{$tally->id}/rulings", [
                ...$about,
                'decision' => $decision,
                'reason' => 'as agreed',
                'askedId' => $this->owner->id,
                'seenAct' => Ruling::query()->max('id') ?? 0,
            ])->assertCreated(),
            'id',
        );
        $this->acts[] = ['id' => $id, 'scope' => $scope, 'target' => $target, 'decision' => $decision, 'undone' => false];
    }

    /** @param array{scope: string, sequence: int, groupScope: string, group: string} $finding */
    private function newestOver(array $finding): string
    {
        return array_column($this->acts, 'decision', 'id')[$this->actOver($finding)] ?? 'open';
    }

    /** @param array{scope: string, sequence: int, groupScope: string, group: string} $finding */
    private function actOver(array $finding): ?int
    {
        foreach (array_reverse($this->acts) as $act) {
            $covers =
                ($act['scope'] === $finding['scope'] && $act['target'] === (string) $finding['sequence']) ||
                ($act['scope'] === $finding['groupScope'] && $act['target'] === $finding['group']) ||
                ($act['scope'] === 'selection' && $finding['scope'] === 'cell' && str_contains($act['target'], " {$finding['sequence']} "));
            if ($covers && ! $act['undone']) {
                return $act['id'];
            }
        }

        return null;
    }

    /** @return array<string, array{id: string, scope: string, sequence: int, groupScope: string, group: string, decision: string}> */
    private function findings(Tally $tally): array
    {
        $found = [];
        foreach ([1, 2] as $pattern) {
            foreach ($this->objects($this->api('GET', "/tallies/{$tally->id}/findings?pattern={$pattern}"), 'items') as $cell) {
                $found[] = $this->finding($cell, 'cell', 'pattern', (string) $pattern);
            }
        }
        foreach ($this->objects($this->api('GET', "/tallies/{$tally->id}/findings?class=missing"), 'items') as $row) {
            $found[] = $this->finding($row, 'row', 'class', 'missing');
        }

        return array_column($found, null, 'id');
    }

    /**
     * @param  array<string, mixed>  $item
     * @return array{id: string, scope: string, sequence: int, groupScope: string, group: string, decision: string}
     */
    private function finding(array $item, string $scope, string $groupScope, string $group): array
    {
        self::assertIsInt($item['sequence']);
        self::assertIsString($item['decision']);

        return [
            'id' => "{$scope} {$item['sequence']}",
            'scope' => $scope,
            'sequence' => $item['sequence'],
            'groupScope' => $groupScope,
            'group' => $group,
            'decision' => $item['decision'],
        ];
    }

    /**
     * @param  array<string, string>  $decisions
     * @return array<string, int>
     */
    private function counted(array $decisions): array
    {
        $counts = array_count_values($decisions);

        return [
            'open' => $counts['open'] ?? 0,
            'expected' => $counts['expected'] ?? 0,
            'defect' => $counts['defect'] ?? 0,
            'ask' => $counts['ask'] ?? 0,
        ];
    }

    /** @return array<string, int> the figures that the screens show, summed over patterns and classes */
    private function told(Tally $tally): array
    {
        $sum = ['open' => 0, 'expected' => 0, 'defect' => 0, 'ask' => 0];
        $answer = $this->api('GET', "/tallies/{$tally->id}");
        foreach ([...$this->objects($answer, 'patterns'), ...$this->objects($answer, 'classes')] as $group) {
            foreach (array_keys($sum) as $decision) {
                $count = data_get($group, "standing.{$decision}");
                $sum[$decision] += is_int($count) ? $count : 0;
            }
        }

        return $sum;
    }

    /** @param list<string> $fees of rows that both sides have; the source has two more */
    private function register(string $column, array $fees, string $holder): string
    {
        $owner = $holder === 'A' ? 'holder' : 'owner';
        $rows = array_map(static fn(string $fee, int $berth): string => "KB,{$berth},{$holder},{$fee},t\n", $fees, array_keys($fees));

        return "basin,berth,{$owner},{$column},loaded\n".implode('', $rows).($holder === 'A' ? "LM,1,A,1,t\nLM,2,A,1,t\n" : '');
    }
}
