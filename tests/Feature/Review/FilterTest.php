<?php

declare(strict_types=1);

namespace Tests\Feature\Review;

use App\Rulings\FindingSet\CancellableSearch;
use App\Rulings\FindingSet\Filter;
use App\Rulings\FindingSet\FilterBitmaps;
use App\Rulings\FindingSet\FilterCounts;
use App\Rulings\FindingSet\FilteredFindings;
use App\Rulings\FindingSet\GroupCounts;
use App\Rulings\FindingSet\MembersOfFilter;
use App\Rulings\Storage\EffectiveRulingBlocks;
use App\Rulings\Storage\GroupPostingReader;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/** Filters of findings: what is in them, how long they are, and what is done with all that they mean. */
final class FilterTest extends TestCase
{
    use FilteredRegister;

    /** Law: whatever is filtered by, the list is what one gets by looking at each finding; entered anywhere, and counted. */
    public function test_a_filter_means_what_its_terms_say_of_each_finding(): void
    {
        $tally = $this->register();
        $this->rule($tally, ['scope' => 'cell', 'target' => '4', 'decision' => 'defect']);
        $this->rule($tally, ['scope' => 'class', 'target' => 'extra', 'decision' => 'expected']);
        $cells = $this->all($tally, 'of=cells');
        $rows = $this->all($tally, '');
        self::assertCount(420, $cells);
        self::assertCount(328, $rows);
        $text = static fn(array $finding, string $name): string => is_string($finding[$name] ?? null) ? $finding[$name] : '';
        $cause = static fn(array $cell): string => match (true) {
            $cell['source'] === '' => 'filled',
            mb_strtoupper($text($cell, 'source')) === $cell['target'] => 'case',
            default => 'other',
        };
        $keyOf = static fn(array $finding): array => str_getcsv($text($finding, 'key'), ',', '"', '');

        foreach (
            [
                ['cause=case', $cells, static fn(array $cell): bool => $cause($cell) === 'case'],
                ['cellClass=filled', $cells, static fn(array $cell): bool => $cause($cell) === 'filled'],
                ['source=', $cells, static fn(array $cell): bool => $cell['source'] === ''],
                ['source=%20Anna%20', $cells, static fn(array $cell): bool => $cell['source'] === ' Anna '],
                ['of=cells&key=KB&keyColumn=1', $cells, static fn(array $cell): bool => $keyOf($cell)[0] === 'KB'],
                [
                    'of=cells&key=a%2C%22b&keyColumn=1&ruling=open',
                    $cells,
                    static fn(array $cell): bool => $keyOf($cell)[0] === 'a,"b' && $cell['decision'] === 'open',
                ],
                [
                    'of=cells&text=tHoRnøy',
                    $cells,
                    static fn(array $cell): bool => str_contains(
                        mb_strtolower("{$text($cell, 'source')} {$text($cell, 'target')} {$text($cell, 'key')}"),
                        'thornøy',
                    ),
                ],
                [
                    'of=cells&text=1',
                    $cells,
                    static fn(array $cell): bool => str_contains(
                        "{$text($cell, 'source')} {$text($cell, 'target')} {$text($cell, 'key')}",
                        '1',
                    ),
                ],
                ['of=cells&text=Ø', $cells, static fn(array $cell): bool => str_contains(mb_strtolower($text($cell, 'source')), 'ø')],
                ['text=A,%2213', $rows, static fn(array $row): bool => false],
                ['text=lm,1', $rows, static fn(array $row): bool => str_starts_with($text($row, 'key'), 'LM,1')],
                ['of=cells&ruling=defect', $cells, static fn(array $cell): bool => $cell['decision'] === 'defect'],
                ['key=7&keyColumn=2', $rows, static fn(array $row): bool => $keyOf($row)[1] === '7'],
                ['ruling=expected', $rows, static fn(array $row): bool => $row['class'] === 'extra'],
                ['ruling=defect', $rows, static fn(array $row): bool => $row['sequence'] === $cells[3]['rowSequence']],
                [
                    'class=missing&key=LM&keyColumn=1',
                    $rows,
                    static fn(array $row): bool => $row['class'] === 'missing' && $keyOf($row)[0] === 'LM',
                ],
                ['text=%25', $rows, static fn(array $row): bool => false],
                ['text=%22b', $rows, static fn(array $row): bool => $keyOf($row)[0] === 'a,"b'],
                ['column=basin&value=LM', $rows, static fn(array $row): bool => $keyOf($row)[0] === 'LM'],
                [
                    'class=missing&column=holder&value=',
                    $rows,
                    static fn(array $row): bool => $row['class'] === 'missing',
                ],
                [
                    'pattern=1&column=basin&value=KB',
                    array_filter($cells, static fn(array $cell): bool => $cell['pattern'] === 1),
                    static fn(array $cell): bool => $keyOf($cell)[0] === 'KB',
                ],
                ['column=loaded&value=t', $rows, static fn(array $row): bool => $row['class'] === 'changed'],
            ]
            as [$filter, $findings, $means]
        ) {
            $expected = array_column(array_filter($findings, $means), 'sequence');
            // The first page stands there before anybody has counted.
            self::assertSame(
                array_slice($expected, 0, 7),
                array_column($this->objects($this->api('GET', "/tallies/{$tally->id}/findings?{$filter}&limit=7"), 'items'), 'sequence'),
                $filter,
            );
            $this->api('GET', "/tallies/{$tally->id}/findings/count?{$filter}")
                ->assertOk()
                ->assertExactJson(['total' => count($expected)]);
            self::assertSame($expected, array_column($this->all($tally, $filter), 'sequence'), $filter);
            // From the last place backwards: a list can be entered anywhere, without reading what is before.
            foreach (array_slice(array_reverse(range(1, max(1, count($expected)), 13)), 0, 3) as $from) {
                $page = $this->api('GET', "/tallies/{$tally->id}/findings?{$filter}&from={$from}&limit=40");
                self::assertSame(
                    array_slice($expected, $from - 1, 40),
                    array_column($this->objects($page, 'items'), 'sequence'),
                    "{$filter} from {$from}",
                );
            }
        }
        // Which value became which: of the cells that the filter means, and of no others.
        foreach (['', 'key=KB&keyColumn=1', 'source=%20Anna%20', 'ruling=open'] as $filter) {
            $counts = [];
            foreach ($this->all($tally, "pattern=1&{$filter}") as $cell) {
                $pair = "{$text($cell, 'source')} became {$text($cell, 'target')}";
                $counts[$pair] = ($counts[$pair] ?? 0) + 1;
            }
            $listed = [];
            $answer = $this->api('GET', "/tallies/{$tally->id}/patterns/1/value-pairs?{$filter}")->assertOk();
            foreach ($this->objects($answer, 'items') as $pair) {
                $listed["{$text($pair, 'source')} became {$text($pair, 'target')}"] = $pair['cells'];
            }
            self::assertNotSame([], $listed, $filter);
            self::assertEquals(array_intersect_key($counts, $listed), $listed, $filter);
        }
        self::assertSame(
            ['thornøy'],
            array_values(
                array_unique(
                    array_map(
                        static fn(string $line): string => (string) preg_replace('/.*(thornøy).*/isu', '$1', mb_strtolower($line)),
                        array_slice(
                            explode(
                                "\n",
                                trim($this->get("/api/v1/tallies/{$tally->id}/findings/taken?of=cells&text=thornøy")->streamedContent()),
                            ),
                            1,
                        ),
                    ),
                ),
            ),
        );
    }

    public function test_findings_are_counted_by_any_column_and_each_has_its_place_in_a_list(): void
    {
        $tally = $this->register();
        $counts = fn(string $filter): array => array_column(
            $this->objects($this->api('GET', "/tallies/{$tally->id}/findings/by-column?{$filter}")->assertOk(), 'items'),
            'findings',
            'value',
        );
        self::assertSame(['LM' => 14], $counts('class=missing&by=basin'));
        self::assertSame(['KB' => 14], $counts('class=extra&by=basin'));
        $cells = [];
        foreach ($this->all($tally, 'pattern=1') as $cell) {
            $basin = str_getcsv(is_string($cell['key']) ? $cell['key'] : '', ',', '"', '')[0] ?? '';
            $cells[$basin] = ($cells[$basin] ?? 0) + 1;
        }
        self::assertEquals($cells, $counts('pattern=1&by=basin'));
        self::assertSame([], $counts('class=missing&by=nobody%20has%20it'));

        foreach (['', 'class=extra', 'of=cells', 'pattern=1', 'column=basin&value=LM', 'of=cells&source=%20Anna%20'] as $filter) {
            $sequences = array_column($this->all($tally, $filter), 'sequence');
            $place = fn(mixed $sequence): mixed => $this->api(
                'GET',
                "/tallies/{$tally->id}/findings/place?{$filter}&finding=".(is_int($sequence) ? $sequence : 0),
            )->assertOk()->json('place');
            self::assertSame([1, count($sequences)], [$place($sequences[0]), $place($sequences[count($sequences) - 1])], $filter);
        }
        $this->api('GET', "/tallies/{$tally->id}/findings/place?class=extra&finding=1")->assertExactJson(['place' => null]);
        self::assertSame(
            ['holder', 'fee'],
            $this->api('GET', "/tallies/{$tally->id}/findings?key=20&keyColumn=2")->json('items.0.differingColumns'),
        );
    }

    /** Law: what is told from the groups alone is what stands in the list, over several stretches of it. */
    public function test_a_term_that_nobody_knows_is_refused_and_nothing_is_ruled_on(): void
    {
        $tally = $this->tallied();
        $this->actingAs($this->owner);
        $this->api('GET', "/tallies/{$tally->id}/findings?of=cells&colour=fee&from=1&limit=5")->assertUnprocessable()->assertJson([
            'errors' => [['pointer' => '/colour']],
        ]);
        $this->api('POST', "/tallies/{$tally->id}/rulings", [
            'scope' => 'filter',
            'target' => '',
            'filter' => ['of' => 'cells', 'column' => 'fee'],
            'decision' => 'expected',
            'reason' => 'of fees',
            'seenAct' => 0,
        ])->assertUnprocessable();
        self::assertSame(0, $tally->rulings()->count());
    }

    public function test_a_list_by_groups_and_rulings_is_entered_anywhere_without_looking_at_its_findings(): void
    {
        $tally = $this->register(3_300);
        foreach (
            [
                ['scope' => 'pattern', 'target' => '1'],
                ['scope' => 'filter', 'filter' => ['of' => 'cells', 'key' => 'KB', 'keyColumn' => 1], 'decision' => 'ask'],
                ['scope' => 'filter', 'filter' => ['of' => 'rows', 'key' => 'LM', 'keyColumn' => 1], 'decision' => 'defect'],
                ['scope' => 'class', 'target' => 'extra'],
                ['scope' => 'cell', 'target' => '2001', 'decision' => 'open'],
            ]
            as $act
        ) {
            $acts[] = $this->rule($tally, ['decision' => 'expected', ...$act]);
        }
        $findings = app(FilteredFindings::class);
        $meant = static fn(int $few): FilterBitmaps => new FilterBitmaps(
            $findings,
            app(EffectiveRulingBlocks::class),
            app(GroupPostingReader::class),
            $few,
        );
        $counts = new FilterCounts(
            DB::connection(),
            $findings,
            new GroupCounts($meant(0), app(GroupPostingReader::class)),
            app(CancellableSearch::class),
            all: 0,
        );
        $members = static function (Filter $filter, int $few) use ($tally, $findings, $meant): array {
            $places = [];
            foreach ((new MembersOfFilter(DB::connection(), $findings, $meant($few)))->of($tally, $filter) as [$group, $block, $some]) {
                $places["{$group} {$block}"] = $some->places;
            }
            ksort($places);

            return $places;
        };
        $lists = array_map(static fn(string $ruling): array => ['ruling' => $ruling], ['expected', 'ask', 'defect', 'open']);
        $lists = [
            ...$lists,
            [],
            ['act' => $acts[0]],
            ['act' => $acts[1]],
            ['act' => $acts[2], 'ruling' => 'defect'],
            ['act' => $acts[2], 'ruling' => 'ask'],
            ['key' => 'KB', 'keyColumn' => 1],
            ['key' => 'LM', 'keyColumn' => 1, 'ruling' => 'expected'],
        ];
        $within = [
            'cells' => [[], ['pattern' => 2], ['cause' => 'case'], ['cellClass' => 'filled']],
            'rows' => [[], ['class' => 'missing'], ['class' => 'changed']],
        ];
        $entered = 0;
        foreach ($within as $of => $groups) {
            foreach ($groups as $group) {
                foreach ($lists as $terms) {
                    $filter = Filter::from(['of' => $of, ...$group, ...$terms]);
                    $places = $findings
                        ->query($tally, $filter)
                        ->orderBy($findings->order($filter))
                        ->selectRaw("{$findings->order($filter)} AS place")
                        ->pluck('place')
                        ->all();
                    $found = $counts->found($tally, $filter);
                    self::assertSame(count($places), $found->findings, (string) json_encode($filter->toArray()));
                    self::assertSame($members($filter, PHP_INT_MAX), $members($filter, 0), 'A ruling covers the same, told or looked at.');
                    for ($from = 1; $from <= count($places); $from += 611) {
                        self::assertSame(
                            array_slice($places, $from - 1, 250),
                            $counts->stretch($tally, $filter, $found, $from, 250),
                            "{$from} of ".json_encode($filter->toArray()),
                        );
                        $entered += $from > 1_000 ? 1 : 0;
                    }
                }
            }
        }
        self::assertGreaterThan(15, $entered);
    }
}
