<?php

declare(strict_types=1);

namespace App\Queries\Prove;

use App\Models\Tally;
use App\Models\TallyTotal;
use App\Models\TotalGroup;
use App\Queries\Review\Mask;
use Illuminate\Support\Collection;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\Side;
use NineTally\Core\Totals\ControlTotal;
use NineTally\Core\Totals\Share;
use NineTally\Core\Totals\TotalReport;
use NineTally\Core\Totals\TotalShares;

/**
 * The control totals of a tally as they are shown: those that differ first, each with the shares of its difference and where their rows
 * are seen, and with what it was in the tally before.
 *
 * @phpstan-import-type ShareFigures from Share
 * @phpstan-import-type GroupDocument from TotalReport
 * @phpstan-import-type Change from TotalsBefore
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
        $before = TotalsBefore::of($tally);
        $patterns = TotalsBefore::patterns($tally);
        $totals = $this->ofTally($tally);

        return array_values($totals->map(fn(TallyTotal $total): array => $this->shown($total, $tally, $before, $patterns, $mask))->all());
    }

    /** @return array{tally: int, totals: list<Change>, worth: list<Change>}|null what the tally did to what was before it */
    public function since(Tally $tally, Mask $mask): ?array
    {
        return TotalsBefore::of($tally)->changes($tally, $this->ofTally($tally), $mask);
    }

    /** @return Collection<int, TallyTotal> those that differ first, and of them the one that differs most */
    private function ofTally(Tally $tally): Collection
    {
        return TallyTotal::query()
            ->where('tally_id', $tally->id)
            ->orderByDesc('differs')
            ->orderBy('number')
            ->get()
            // As board and tally name the one that differs most.
            ->sortByDesc(static fn(TallyTotal $total): float => $total->differs ? $total->partThatDiffers() : -1.0);
    }

    /** @return array{items: list<array<string, mixed>>, next: int|null} */
    public function groups(TallyTotal $total, int $from, Tally $tally, Mask $mask): array
    {
        if ($mask->hidesTotal($total->total())) {
            return ['items' => [], 'next' => null];
        }
        $patterns = TotalsBefore::patterns($tally);
        $passes = self::passes($tally, $total->total());
        $published = PublishedFigures::of($tally->dataset_id, $total->total());
        $groups = $this->page($total, $from, self::PAGE);

        return [
            'items' => array_map(
                fn(array $group, int $place): array => [
                    'shares' => $this->shares($group['shares'], $patterns, $passes, $mask->hidesKeys(), [
                        'total' => $total->number,
                        'group' => $from + $place,
                    ]),
                    'published' => $published->held($group['labels'], $group['source'], $group['target'], $group['shares']),
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
     * @param  array<int, string>  $patterns
     * @return array<string, mixed>
     */
    private function shown(TallyTotal $row, Tally $tally, TotalsBefore $before, array $patterns, Mask $mask): array
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
            'shares' => $this->shares(
                $figures['shares'],
                $patterns,
                self::passes($tally, $total),
                $mask->hidesKeys(),
                before: $before->sharesOf($total),
            ),
            'keys' => $mask->hidesKeys() ? self::HIDDEN['keys'] : $figures['keys'],
            'published' => PublishedFigures::of($tally->dataset_id, $total)->held(
                [],
                $figures['source'],
                $figures['target'],
                $figures['shares'],
            ),
            'declared' => DeclaredTotals::of($tally, $total, ['source' => $figures['source'], 'target' => $figures['target']]),
            'before' => $before->ofTotal($total),
        ];
    }

    /**
     * @param  list<ShareFigures>  $shares
     * @param  array<int, string>  $patterns
     * @param  array<string, list<int>>  $passes
     * @param  array{total?: int, group?: int}  $group  that they are of
     * @param  array<string, string>  $before  what they came to in the tally before, by their words
     * @return list<array<string, mixed>> each with words, and what Review is asked for to see its rows
     */
    private function shares(
        array $shares,
        array $patterns,
        array $passes,
        bool $hidesKeys,
        array $group = [],
        array $before = [],
    ): array {
        return array_map(static function (array $share) use ($patterns, $passes, $hidesKeys, $group, $before): array {
            $lists = $passes[$share['name']] ?? [];
            [$kind, $rest] = [...explode(' ', $share['name'], 2), ''];

            return [
                ...$share,
                'keys' => $hidesKeys
                    ? []
                    : array_map(static fn(array $key): string => KeyTuple::of($key)->asCsv(), $share['keys'] ?? []),
                'words' => $words = TotalWords::share($share['name'], $patterns[(int) $rest] ?? ''),
                'before' => $before[$words] ?? null,
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
}
