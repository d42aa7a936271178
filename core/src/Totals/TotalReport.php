<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

use Brick\Math\BigDecimal;
use NineTally\Core\Figures\UnbalancedTally;
use NineTally\Core\Row\KeyTuple;

/**
 * A control total as it came out: both sides, their difference and the shares that make it up, overall and by group, those that differ
 * most first. That the shares are the difference is held before anything is said.
 *
 * @phpstan-import-type Groups from SideTotals
 * @phpstan-import-type TotalDocument from ControlTotal
 * @phpstan-import-type OfGroup from DistinctValues
 * @phpstan-import-type Only from DistinctValues
 * @phpstan-import-type ShareFigures from Share
 *
 * @phpstan-type Along array{source: string|null, target: string|null, differsIn: list<'source'|'target'>, apart: bool}
 * @phpstan-type Taken array{rows: int, blanks: int, unread: int, unvalued: int}
 * @phpstan-type Moves array{rowsUp: int, up: string, rowsDown: int, down: string}
 * @phpstan-type Figures array{source: string|null, target: string|null, difference: string|null, rows: array{source: int, target: int},
 *     shares: list<ShareFigures>, moves: Moves, cancels: bool, keys: array{source: list<string>, target: list<string>},
 *     only: array{source: Only, target: Only}|null}
 * @phpstan-type GroupDocument array{labels: list<string>, onlyOn: 'source'|'target'|null, source: string|null, target: string|null,
 *     difference: string|null, rows: array{source: int, target: int}, shares: list<ShareFigures>, moves: Moves, cancels: bool,
 *     keys: array{source: list<string>, target: list<string>}, only: array{source: Only, target: Only}|null, along?: list<Along>}
 */
final readonly class TotalReport
{
    /** Of a side's total over prepared rows: the shares that are no part of it over rows that matched. */
    private const UNMATCHED = [
        'source' => ['missing', 'repeated source', 'unkeyed source'],
        'target' => ['extra', 'repeated target', 'unkeyed target'],
    ];

    /**
     * @param  Figures  $all
     * @param  list<GroupDocument>  $groups
     * @param  array{source: Taken, target: Taken}  $taken
     */
    private function __construct(
        public ControlTotal $total,
        public array $all,
        public array $groups,
        public array $taken,
        public bool $hasTooManyGroups,
    ) {}

    /**
     * @param  array<string, GroupFigures>  $source  by group
     * @param  array<string, GroupFigures>  $target
     * @param  array<string, array<string, Share>>  $shares  by group and name
     * @param  array<string, OfGroup>  $distinct  by group, of a total that counts distinct values
     *
     * @throws UnbalancedTally when shares are not the difference
     */
    public static function of(
        TotalColumns $ofSource,
        TotalColumns $ofTarget,
        array $source,
        array $target,
        array $shares,
        array $distinct = [],
    ): self {
        $total = $ofSource->total;
        $all = ['source' => self::sum($source, $ofSource), 'target' => self::sum($target, $ofTarget)];
        $figures = self::figures(
            $total,
            $all['source'],
            $all['target'],
            $shares[ShareCounts::ALL] ?? [],
            distinct: $distinct[ShareCounts::ALL] ?? null,
        );
        // Groups are written with as many decimal places as their sum.
        $places = BigDecimal::of($figures['difference'] ?? '0')->getScale();
        $hasTooMany = count($source + $target) > SideTotals::MOST_GROUPS;
        $groups = [];
        foreach ($total->by === [] || $hasTooMany ? [] : array_keys($source + $target) as $group) {
            [$one, $other] = [$source[$group] ?? null, $target[$group] ?? null];
            $groups[] = [
                'labels' => ($one ?? $other)->labels ?? [],
                'onlyOn' => $other === null ? 'source' : ($one === null ? 'target' : null),
                ...self::figures($total, $one, $other, $shares[$group] ?? [], $places, $distinct[$group] ?? null),
                ...self::along($total, $one, $other),
            ];
        }
        usort($groups, self::order(...));

        return new self(
            $total,
            $figures,
            $groups,
            ['source' => self::taken($all['source']), 'target' => self::taken($all['target'])],
            $hasTooMany,
        );
    }

    /** @return Taken */
    private static function taken(GroupFigures $figures): array
    {
        return ['rows' => $figures->rows, 'blanks' => $figures->blanks, 'unread' => $figures->unread, 'unvalued' => $figures->unvalued];
    }

    /** @return array{along?: list<Along>} what is read along with a group: nothing where the total has no such column */
    private static function along(ControlTotal $total, ?GroupFigures $source, ?GroupFigures $target): array
    {
        $along = [];
        foreach (array_keys($total->along) as $nth) {
            [$one, $other] = [$source->along[$nth] ?? null, $target->along[$nth] ?? null];
            $along[] = [
                'source' => $one['value'] ?? null,
                'target' => $other['value'] ?? null,
                'differsIn' => [...($one['differs'] ?? false) ? ['source'] : [], ...($other['differs'] ?? false) ? ['target'] : []],
                'apart' => $one !== null && $other !== null && $one['canonical'] !== $other['canonical'],
            ];
        }

        return $along === [] ? [] : ['along' => $along];
    }

    public function differs(): bool
    {
        return self::isDiffering($this->all);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'total' => $this->total->toArray(),
            'taken' => $this->taken,
            ...$this->all,
            'differs' => $this->differs(),
            'differing' => count(array_filter($this->groups, self::isDiffering(...))),
            'cancelling' => count(array_filter($this->groups, static fn(array $group): bool => $group['cancels'])),
            'tooManyGroups' => $this->hasTooManyGroups,
            'groups' => $this->groups,
        ];
    }

    /** @param array<string, GroupFigures> $groups */
    private static function sum(array $groups, TotalColumns $columns): GroupFigures
    {
        $sum = new GroupFigures([]);
        foreach ($groups as $figures) {
            $sum->take($figures, $columns);
        }

        return $sum;
    }

    /**
     * @param  array<string, Share>  $shares  by name
     * @param  OfGroup|null  $distinct
     * @return Figures
     */
    private static function figures(
        ControlTotal $total,
        ?GroupFigures $source,
        ?GroupFigures $target,
        array $shares,
        int $leastPlaces = 0,
        ?array $distinct = null,
    ): array {
        $rows = ['source' => $source->rows ?? 0, 'target' => $target->rows ?? 0];
        $keys = ['source' => $source->keyOfExtreme ?? [], 'target' => $target->keyOfExtreme ?? []];
        $nothingMoves = ['rowsUp' => 0, 'up' => '0', 'rowsDown' => 0, 'down' => '0'];
        if ($total->measure === Measure::Distinct) {
            [$ofSource, $ofTarget] = [$distinct['source'] ?? 0, $distinct['target'] ?? 0];
            $only = $distinct['only'] ?? null;

            return [
                'source' => (string) $ofSource,
                'target' => (string) $ofTarget,
                'difference' => (string) ($ofTarget - $ofSource),
                'rows' => $rows,
                'shares' => [],
                'moves' => $nothingMoves,
                // As many on both sides, and not the same.
                'cancels' => $ofSource === $ofTarget && ($only['source']['count'] ?? 0) > 0,
                'keys' => $keys,
                'only' => $only,
            ];
        }
        if (! $total->measure->hasShares()) {
            return [
                'source' => $source?->extreme,
                'target' => $target?->extreme,
                'difference' => null,
                'rows' => $rows,
                'shares' => [],
                'moves' => $nothingMoves,
                'cancels' => false,
                'keys' => $keys,
                'only' => null,
            ];
        }
        $values = ['source' => self::value($total, $source), 'target' => self::value($total, $target)];
        if ($total->over === Basis::Matched) {
            foreach (self::UNMATCHED as $side => $names) {
                foreach (array_intersect_key($shares, array_flip($names)) as $share) {
                    $values[$side] = $side === 'source' ? $values[$side]->plus($share->net()) : $values[$side]->minus($share->net());
                    $rows[$side] -= $share->rows;
                }
            }
            $shares = array_diff_key($shares, array_flip([...self::UNMATCHED['source'], ...self::UNMATCHED['target']]));
        }
        $difference = $values['target']->minus($values['source']);
        self::mustAddUp($total, $difference, $shares);
        $moves = array_filter($shares, static fn(Share $share): bool => $share->moves());
        ksort($moves, SORT_NATURAL);
        // What steps took away again may have been written with more places than what was delivered.
        $places = max(
            $leastPlaces,
            ...array_map(static fn(BigDecimal $value): int => $value->getScale(), array_values($values)),
            ...array_map(static fn(Share $share): int => $share->places(), array_values($moves)),
        );
        $written = static fn(BigDecimal $number): string => (string) $number->toScale($places);
        $together = new Share;
        array_walk($moves, static fn(Share $share) => $together->take($share));

        return [
            'source' => $written($values['source']),
            'target' => $written($values['target']),
            'difference' => $written($difference),
            'rows' => $rows,
            'shares' => array_map(
                static fn(string $name, Share $share): array => $share->figures($name, $written),
                array_keys($moves),
                array_values($moves),
            ),
            'moves' => [
                'rowsUp' => $together->rowsUp,
                'up' => $written($together->up->total()),
                'rowsDown' => $together->rowsDown,
                'down' => $written($together->down->total()),
            ],
            'cancels' => $difference->isZero() && $moves !== [],
            'keys' => $keys,
            'only' => null,
        ];
    }

    private static function value(ControlTotal $total, ?GroupFigures $figures): BigDecimal
    {
        return match (true) {
            $figures === null => BigDecimal::zero(),
            $total->measure === Measure::Rows => BigDecimal::of($figures->rows),
            $total->measure === Measure::Blanks => BigDecimal::of($figures->blanks),
            default => $figures->sum->total(),
        };
    }

    /** @param array<string, Share> $shares */
    private static function mustAddUp(ControlTotal $total, BigDecimal $difference, array $shares): void
    {
        $sum = BigDecimal::zero();
        foreach ($shares as $share) {
            $sum = $sum->plus($share->net());
        }
        if (! $sum->isEqualTo($difference)) {
            throw UnbalancedTally::inTotal($total->measure->value, $total->source ?? '', (string) $difference, (string) $sum);
        }
    }

    /** @param Figures $group */
    private static function isDiffering(array $group): bool
    {
        return $group['difference'] === null
            ? $group['source'] !== $group['target']
            : ! BigDecimal::of($group['difference'])->isZero();
    }

    /**
     * What differs first, the largest difference before others; then what cancels out; then by name.
     *
     * @param  GroupDocument  $one
     * @param  GroupDocument  $other
     */
    private static function order(array $one, array $other): int
    {
        $apart = static fn(?string $difference): BigDecimal => BigDecimal::of($difference ?? '0')->abs();

        return [self::isDiffering($other), $other['cancels']] <=> [self::isDiffering($one), $one['cancels']]
            ?: $apart($other['difference'])->compareTo($apart($one['difference']))
            ?: strnatcmp(implode(KeyTuple::SEPARATOR, $one['labels']), implode(KeyTuple::SEPARATOR, $other['labels']));
    }
}
