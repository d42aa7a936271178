<?php

declare(strict_types=1);

namespace App\Queries\Prove;

use App\Models\Tally;
use App\Models\TallyTotal;
use App\Models\TotalGroup;
use App\Queries\Review\Mask;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Row\Side;
use NineTally\Core\Totals\ControlTotal;
use NineTally\Core\Totals\TotalReport;
use NineTally\Core\Totals\TotalShares;

/**
 * The control totals of a tally as they are shown: those that differ first, each with the shares of its difference and where their rows
 * are seen, and with what it was in the tally before.
 *
 * @phpstan-import-type ShareFigures from TotalReport
 * @phpstan-import-type GroupDocument from TotalReport
 */
final readonly class TotalsOfTally
{
    public const PAGE = 100;

    /** What stands for all that is computed from values which the person may not see. */
    private const HIDDEN = [
        'isMasked' => true,
        'source' => null,
        'target' => null,
        'difference' => null,
        'differs' => false,
        'cancels' => false,
        'groups' => 0,
        'shares' => [],
        'moves' => ['rowsUp' => 0, 'up' => '0', 'rowsDown' => 0, 'down' => '0'],
        'keys' => ['source' => [], 'target' => []],
        'only' => null,
        'published' => null,
        'declared' => [],
        'before' => null,
    ];

    /** @return list<array<string, mixed>> */
    public function all(Tally $tally, Mask $mask): array
    {
        $before = $this->before($tally);
        $patterns = $this->patterns($tally);
        $totals = TallyTotal::query()
            ->where('tally_id', $tally->id)
            ->orderByDesc('differs')
            ->orderBy('number')
            ->get()
            // As board and tally name the one that differs most.
            ->sortByDesc(static fn(TallyTotal $total): float => $total->differs ? $total->partThatDiffers() : -1.0);

        return array_values($totals->map(fn(TallyTotal $total): array => $this->shown($total, $tally, $before, $patterns, $mask))->all());
    }

    /** @return array{items: list<array<string, mixed>>, next: int|null} */
    public function groups(TallyTotal $total, int $from, Tally $tally, Mask $mask): array
    {
        if ($mask->hidesTotal($total->total())) {
            return ['items' => [], 'next' => null];
        }
        $patterns = $this->patterns($tally);
        $passes = self::passes($tally, $total->total());
        $published = PublishedFigures::of($tally->dataset_id, $total->total());
        $groups = $this->page($total, $from, self::PAGE);

        return [
            'items' => array_map(
                fn(array $group, int $place): array => [
                    'shares' => $this->shares($group['shares'], $patterns, $passes, ['total' => $total->number, 'group' => $from + $place]),
                    'published' => $published->held($group['labels'], $group['source'], $group['target']),
                ] + array_diff_key($group, ['keys' => true]),
                $groups,
                array_keys($groups),
            ),
            'next' => $total->groups >= $from + self::PAGE ? $from + self::PAGE : null,
        ];
    }

    /** @return list<GroupDocument> */
    public function page(TallyTotal $total, int $from, int $groups): array
    {
        return array_values(
            TotalGroup::query()
                ->where(['tally_id' => $total->tally_id, 'number' => $total->number])
                ->whereBetween('place', [$from, $from + $groups - 1])
                ->orderBy('place')
                ->get()
                ->map(static fn(TotalGroup $group): array => $group->figures)
                ->all(),
        );
    }

    /**
     * @param  array<string, array{tally: int, difference: string|null}>  $before
     * @param  array<int, string>  $patterns
     * @return array<string, mixed>
     */
    private function shown(TallyTotal $row, Tally $tally, array $before, array $patterns, Mask $mask): array
    {
        $total = $row->total();
        $figures = $row->figures;
        $shown = [
            'total' => $total->toArray(),
            'number' => $row->number,
            'heading' => ucfirst($total->name()),
            'by' => $total->groupNames(),
            'basis' => TotalWords::basis($total),
        ];
        if ($mask->hidesTotal($total)) {
            return [...$figures, ...$shown, ...self::HIDDEN];
        }

        return [
            ...$figures,
            ...$shown,
            'isMasked' => false,
            'differs' => $row->differs,
            'groups' => $row->groups,
            'shares' => $this->shares($figures['shares'], $patterns, self::passes($tally, $total)),
            'keys' => $mask->hidesKeys() ? self::HIDDEN['keys'] : $figures['keys'],
            'published' => PublishedFigures::of($tally->dataset_id, $total)->held([], $figures['source'], $figures['target']),
            'declared' => DeclaredTotals::of($tally, $total, ['source' => $figures['source'], 'target' => $figures['target']]),
            'before' => $before[CanonicalJson::of($total->toArray())] ?? null,
        ];
    }

    /**
     * @param  list<ShareFigures>  $shares
     * @param  array<int, string>  $patterns
     * @param  array<string, list<int>>  $passes
     * @param  array{total?: int, group?: int}  $group  that they are of
     * @return list<array<string, mixed>> each with words, and what Review is asked for to see its rows
     */
    private function shares(array $shares, array $patterns, array $passes, array $group = []): array
    {
        return array_map(static function (array $share) use ($patterns, $passes, $group): array {
            $lists = $passes[$share['name']] ?? [];
            [$kind, $rest] = [...explode(' ', $share['name'], 2), ''];

            return [
                ...$share,
                'words' => TotalWords::share($share['name'], $patterns[(int) $rest] ?? ''),
                'filter' => match ($kind) {
                    'missing', 'extra' => ['class' => $kind, ...$group],
                    'repeated', 'unkeyed' => ['class' => $kind, 'side' => $rest, ...$group],
                    'pattern' => ['pattern' => (int) $rest, ...$group],
                    TotalShares::ELSEWHERE => ['class' => 'changed', 'moved' => 'yes', ...$group],
                    default => null,
                },
                // Where a rule let them pass in several ways, no one list has the rows of the share.
                'forgiven' => count($lists) === 1 ? $lists[0] : null,
            ];
        }, $shares);
    }

    /** @return array<string, list<int>> by the name of a share: the lists of what rules let pass in the columns of the total */
    private static function passes(Tally $tally, ControlTotal $total): array
    {
        $numbers = [];
        foreach ($tally->forgiven() as $place => $pass) {
            if (! $pass['inKey'] && $pass['source'] === $total->column(Side::Source) && $pass['target'] === $total->column(Side::Target)) {
                $numbers["forgiven {$pass['cause']}"][] = $place + 1;
            }
        }

        return $numbers;
    }

    /** @return array<int, string> by number: why its cells differ */
    private function patterns(Tally $tally): array
    {
        $words = [];
        foreach ($tally->patterns as $pattern) {
            $words[$pattern->number] = CauseId::sentenceFor($pattern->cause, $pattern->facts);
        }

        return $words;
    }

    /** @return array<string, array{tally: int, difference: string|null}> by what the total is: what it was in the tally before */
    private function before(Tally $tally): array
    {
        $earlier = Tally::query()->where('dataset_id', $tally->dataset_id)->where('number', $tally->number - 1)->first();
        $totals = $earlier === null ? [] : TallyTotal::query()->where('tally_id', $earlier->id)->get()->all();
        $before = [];
        foreach ($totals as $total) {
            $before[CanonicalJson::of($total->total()->toArray())] = [
                'tally' => $earlier->number ?? 0,
                'difference' => $total->figures['difference'],
            ];
        }

        return $before;
    }
}
