<?php

declare(strict_types=1);

namespace NineTally\Core\Likeness;

use NineTally\Core\Value\IsoDate;
use NineTally\Core\Value\Kind;

/**
 * By which columns rows are likely to find each other: those that tell rows apart (by the distinct values that they have), as far as they
 * agree in the rows that meet. The kind of likeness follows from how the values are written.
 *
 * @phpstan-type Proposed array{source: string, target: string, kind: LikenessKind, weight: int, distinct: int, rows: int,
 *     agreed: float|null}
 */
final readonly class LikenessProposal
{
    private const MOST = 6;

    /** What agrees in fewer of the rows that meet says nothing of those that do not. */
    private const LEAST_AGREED = 0.2;

    /**
     * @param  list<ColumnSample>  $columns
     * @return list<Proposed> the weightiest first; without those that tell nothing
     */
    public static function of(array $columns): array
    {
        $found = $given = [];
        foreach ($columns as $column) {
            $values = array_filter([...$column->sourceValues, ...$column->targetValues], static fn(string $value): bool => $value !== '');
            $distinct = count(array_unique($values));
            $rows = count($column->sourceValues) + count($column->targetValues);
            if ($distinct < 2 || 5 * count($values) < $rows || ($column->agreed ?? 1.0) < self::LEAST_AGREED) {
                continue;
            }
            $kind = self::kind($column, array_values($values));
            $tells = log($distinct) / log(max(3, count($values))) * count($values) / $rows;
            // Of numbers and days that are near each other there are many.
            $trust = in_array($kind, [LikenessKind::Number, LikenessKind::Date], true) ? 0.7 : 1.0;
            $one = [
                'source' => $column->source,
                'target' => $column->target,
                'kind' => $kind,
                'weight' => max(1, min(10, (int) round(10 * $tells * $trust * ($column->agreed ?? 1.0)))),
                'distinct' => $distinct,
                'rows' => count($values),
                'agreed' => $column->agreed,
            ];
            // A new system may have given its own keys, which are then like the old ones by chance alone.
            if ($column->isOfKey && $kind === LikenessKind::Code && ! self::overlap($column)) {
                $given[] = $one;
            } else {
                $found[] = $one;
            }
        }
        $found = $found === [] ? $given : $found;
        usort($found, static fn(array $one, array $other): int => $other['weight'] <=> $one['weight']);

        return array_slice($found, 0, self::MOST);
    }

    /** @param non-empty-list<string>|list<string> $values that are not blank */
    private static function kind(ColumnSample $column, array $values): LikenessKind
    {
        $share = static fn(\Closure $is): float => count(array_filter($values, $is)) / max(1, count($values));

        return match (true) {
            $column->kind === Kind::Number => LikenessKind::Number,
            in_array($column->kind, [Kind::Date, Kind::DateTime], true) => LikenessKind::Date,
            $share(static fn(string $value): bool => IsoDate::read($value) !== null) > 0.8 => LikenessKind::Date,
            ! $column->isOfKey && $share(is_numeric(...)) > 0.8 => LikenessKind::Number,
            self::isCut($column->sourceValues, $column->targetValues) => LikenessKind::Beginning,
            $share(static fn(string $value): bool => preg_match('/\d/', $value) === 1 && substr_count($value, ' ') < 2) > 0.6
                => LikenessKind::Code,
            $share(static fn(string $value): bool => preg_match('/\p{L}[\s,.]+\p{L}/u', $value) === 1) > 0.4 => LikenessKind::Words,
            default => LikenessKind::Name,
        };
    }

    /**
     * Whether the longest values of one side are of one length, and most of them the beginning of a longer one of the other.
     *
     * @param  list<string>  $source
     * @param  list<string>  $target
     */
    private static function isCut(array $source, array $target): bool
    {
        $longest = array_map(static fn(array $values): int => max([0, ...array_map(mb_strlen(...), $values)]), [$source, $target]);
        $most = min($longest);
        if ($longest[0] === $longest[1] || $most < 10) {
            return false;
        }
        [$short, $long] = $longest[0] < $longest[1] ? [$source, $target] : [$target, $source];
        $cut = array_filter($short, static fn(string $value): bool => mb_strlen($value) === $most);
        $beginnings = [];
        foreach ($long as $value) {
            if (mb_strlen($value) > $most) {
                $beginnings[mb_substr($value, 0, $most)] = true;
            }
        }

        return count($cut) > 3 && 2 * count(array_filter($cut, static fn(string $value): bool => isset($beginnings[$value]))) > count($cut);
    }

    private static function overlap(ColumnSample $column): bool
    {
        return array_intersect($column->sourceValues, $column->targetValues) !== [];
    }
}
