<?php

declare(strict_types=1);

namespace NineTally\Core\Profile\Repeats;

use NineTally\Core\Row\RecordPlace;

/**
 * Where the repeats of a side come from: a block of lines that stands once more, a part that shares rows with another, or here and there. A
 * block shows in that its rows stand the same number of lines behind those that they repeat.
 *
 * @phpstan-type Origin array{kind: 'block'|'part'|'scattered', rows: int, part: int, from: int, to: int, ofPart: int, ofFrom: int,
 *     ofTo: int}
 */
final class RepeatOrigins
{
    /** Distances that are counted; where they are more, nothing stands twice as a block. */
    private const MOST_DISTANCES = 50_000;

    /** What is told of has so many of the repeats. */
    private const AT_LEAST = 0.05;

    private const LEAST_ROWS = 5;

    private int $rows = 0;

    /**
     * @var array<string, array{int, int, int, int, int}> rows, first and last line, first and last line that they repeat, by both parts and
     *     the distance
     */
    private array $distances = [];

    /** @var array<string, array{int, int, int, int, int}> the same by both parts, where they are different */
    private array $parts = [];

    public function see(RecordPlace $first, RecordPlace $again): void
    {
        $this->rows++;
        $distance = "{$first->part} {$again->part} ".($again->line - $first->line);
        if (isset($this->distances[$distance]) || count($this->distances) < self::MOST_DISTANCES) {
            $this->distances[$distance] = self::with($this->distances[$distance] ?? null, $first->line, $again->line);
        }
        if ($first->part !== $again->part) {
            $parts = "{$first->part} {$again->part}";
            $this->parts[$parts] = self::with($this->parts[$parts] ?? null, $first->line, $again->line);
        }
    }

    /** @return list<Origin> the largest first, and what stands here and there last */
    public function found(): array
    {
        $left = $this->rows;
        $origins = [];
        foreach ($this->parts as $parts => $seen) {
            if ($this->isWorthIt($seen[0])) {
                $origins[] = self::origin('part', $parts, $seen);
                $left -= $seen[0];
            }
        }
        foreach ($this->distances as $distance => $seen) {
            [$first, $again] = explode(' ', $distance);
            if ($first === $again && $this->isWorthIt($seen[0])) {
                $origins[] = self::origin('block', "{$first} {$again}", $seen);
                $left -= $seen[0];
            }
        }
        usort($origins, static fn(array $one, array $other): int => [$other['rows'], $one['from']] <=> [$one['rows'], $other['from']]);
        if ($left > 0) {
            $origins[] = self::origin('scattered', '0 0', [$left, 0, 0, 0, 0]);
        }

        return $origins;
    }

    private function isWorthIt(int $rows): bool
    {
        return $rows >= max(self::LEAST_ROWS, self::AT_LEAST * $this->rows);
    }

    /**
     * @param  array{int, int, int, int, int}|null  $seen
     * @return array{int, int, int, int, int}
     */
    private static function with(?array $seen, int $first, int $again): array
    {
        return $seen === null
            ? [1, $again, $again, $first, $first]
            : [$seen[0] + 1, min($seen[1], $again), max($seen[2], $again), min($seen[3], $first), max($seen[4], $first)];
    }

    /**
     * @param  'block'|'part'|'scattered'  $kind
     * @param  array{int, int, int, int, int}  $seen
     * @return Origin
     */
    private static function origin(string $kind, string $parts, array $seen): array
    {
        [$ofPart, $part] = array_map(intval(...), explode(' ', $parts));

        return [
            'kind' => $kind, 'rows' => $seen[0], 'part' => $part, 'from' => $seen[1], 'to' => $seen[2], 'ofPart' => $ofPart,
            'ofFrom' => $seen[3], 'ofTo' => $seen[4],
        ];
    }
}
