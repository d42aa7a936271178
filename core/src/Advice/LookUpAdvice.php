<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

use NineTally\Core\Intake\Batch;

/**
 * By which columns rows probably find their record in a reference: by whether their values stand there, in whatever form, and find one
 * record alone.
 */
final readonly class LookUpAdvice
{
    /** Of the values of a column so many must stand in a column of the reference. */
    private const AT_LEAST = 0.5;

    /** Two columns meet by chance more often than one. */
    private const AT_LEAST_OF_TWO = 0.8;

    /** Of all records so many may have a key that another has. */
    private const MOST_REPEATED = 0.05;

    /** Links that are tried two by two. */
    private const MOST_LINKS = 8;

    /**
     * @param  list<string>  $columns  of the rows, which find their records
     * @param  list<list<string>>  $rows
     */
    public function __construct(private array $columns, private array $rows) {}

    /**
     * @param  list<string>  $columns  of the reference
     * @param  list<list<string>>  $records
     * @return array{on: non-empty-list<array{column: string, reference: string}>, found: int}|null rows that find one record, in whatever
     *     form; null: no column leads there
     */
    public function of(array $columns, array $records): ?array
    {
        $links = $this->links($columns, $records);
        $best = null;
        foreach ($links as $link) {
            $best = $this->better($best, [$link], $columns, $records);
        }
        foreach ($links as $place => $link) {
            // Two columns are worth it where one finds several records, or none; never where each row finds its own.
            foreach ($best !== null && $best['found'] === count($this->rows) ? [] : array_slice($links, $place + 1) as $other) {
                if ($other['column'] !== $link['column'] && $other['reference'] !== $link['reference']) {
                    $best = $this->better($best, [$link, $other], $columns, $records);
                }
            }
        }

        return $best === null ? null : [
            'on' => array_map(fn(array $link): array => [
                'column' => $this->columns[$link['column']],
                'reference' => $columns[$link['reference']],
            ], $best['links']),
            'found' => $best['found'],
        ];
    }

    /**
     * @param  array{links: non-empty-list<array{column: int, reference: int}>, found: int, likeness: float}|null  $best
     * @param  non-empty-list<array{column: int, reference: int}>  $links
     * @param  list<string>  $columns
     * @param  list<list<string>>  $records
     * @return array{links: non-empty-list<array{column: int, reference: int}>, found: int, likeness: float}|null
     */
    private function better(?array $best, array $links, array $columns, array $records): ?array
    {
        $times = array_count_values($this->keys($records, array_column($links, 'reference')));
        $repeated = array_sum(array_filter($times, static fn(int $count): bool => $count > 1));
        if ($times === [] || $repeated > self::MOST_REPEATED * array_sum($times)) {
            return $best;
        }
        $keys = $this->keys($this->rows, array_column($links, 'column'));
        $found = count(array_filter($keys, static fn(string $key): bool => ($times[$key] ?? 0) === 1));
        $likeness = array_sum(array_map(
            fn(array $link): float => ColumnNames::likeness($this->columns[$link['column']], $columns[$link['reference']]),
            $links,
        ));
        $share = $keys === [] ? 0.0 : $found / count($keys);
        $isBetter = match (true) {
            $share < (count($links) === 1 ? self::AT_LEAST : self::AT_LEAST_OF_TWO) => false,
            $best === null => true,
            // A column more has to bring something.
            count($links) !== count($best['links']) => $found > $best['found'],
            default => [$found, $likeness] > [$best['found'], $best['likeness']],
        };

        return $isBetter ? ['links' => $links, 'found' => $found, 'likeness' => $likeness] : $best;
    }

    /**
     * @param  list<string>  $columns
     * @param  list<list<string>>  $records
     * @return list<array{column: int, reference: int}> a column whose values mostly stand in one of the reference, those of the likest
     *     names first
     */
    private function links(array $columns, array $records): array
    {
        $links = [];
        $there = array_map(
            fn(int $place): array => array_fill_keys($this->keys($records, [$place]), true),
            array_keys($columns),
        );
        foreach (array_keys($this->columns) as $column) {
            $times = array_count_values($this->keys($this->rows, [$column]));
            foreach ($there as $reference => $values) {
                $met = array_intersect_key($times, $values);
                // One value alone, such as a 1, stands anywhere.
                if (count($met) > 1 && array_sum($met) >= self::AT_LEAST * array_sum($times)) {
                    $links[] = [
                        'column' => $column,
                        'reference' => $reference,
                        'weight' => [
                            ColumnNames::likeness($this->columns[$column], $columns[$reference]),
                            array_sum($met) * count($values),
                        ],
                    ];
                }
            }
        }
        usort($links, static fn(array $one, array $other): int => $other['weight'] <=> $one['weight']);

        return array_map(
            static fn(array $link): array => ['column' => $link['column'], 'reference' => $link['reference']],
            array_slice($links, 0, self::MOST_LINKS),
        );
    }

    /**
     * @param  list<list<string>>  $rows
     * @param  non-empty-list<int>  $places
     * @return list<string> of each row in whose cells something stands, in whatever form
     */
    private function keys(array $rows, array $places): array
    {
        $keys = [];
        foreach ($rows as $cells) {
            $key = '';
            foreach ($places as $place) {
                $key .= self::bare($cells[$place]).Batch::CELL_END;
            }
            if (trim($key, Batch::CELL_END) !== '') {
                $keys[] = $key;
            }
        }

        return $keys;
    }

    /** Letters and digits alone: a reference may have a hundred thousand records, and somebody waits. */
    public static function bare(string $cell): string
    {
        if (! ctype_alnum($cell)) {
            $decomposed = mb_check_encoding($cell, 'ASCII') ? $cell : \Normalizer::normalize($cell, \Normalizer::FORM_KD);
            $cell = preg_replace('/[^\p{L}\p{N}]+/u', '', is_string($decomposed) ? $decomposed : $cell) ?? $cell;
        }

        return ltrim(ctype_alnum($cell) ? strtolower($cell) : mb_strtolower($cell), '0');
    }
}
