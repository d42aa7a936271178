<?php

declare(strict_types=1);

namespace NineTally\Core\Ruling;

/**
 * In which rows the findings of a group stand. Rows are taken by stretches of a thousand, and a hundred stretches are a part. So what a
 * filter by group and ruling means can be counted stretch by stretch without looking at a finding.
 */
final readonly class GroupPostingBlock
{
    /** Rows of a stretch; a row is known by its sequence among all rows that did not agree. */
    public const ROWS = 1_000;

    public const STRETCHES = 100;

    private const NOT_MEANT = "\xFF\xFF";

    /**
     * @param  string  $findings  two bytes for each stretch of the part, the lower first: how many findings it has
     * @param  string  $rows  two bytes for each finding, in their order: its row, counted from the beginning of its stretch; empty where
     *     nobody asks for rows
     */
    public function __construct(public int $part, public string $findings, public string $rows) {}

    /** @return list<int> findings by stretch */
    public function counts(): array
    {
        return self::numbers($this->findings);
    }

    public function total(): int
    {
        return array_sum($this->counts());
    }

    /**
     * @param  string  $meant  a byte for each finding of the part: 1 where it is meant, else 0
     * @return list<int> those that are meant, by stretch
     */
    public function countsOf(string $meant): array
    {
        $counts = [];
        $passed = 0;
        foreach ($this->counts() as $findings) {
            $counts[] = $findings === 0 ? 0 : substr_count($meant, "\1", $passed, $findings);
            $passed += $findings;
        }

        return $counts;
    }

    /**
     * The rows of each stretch, written so that those of several groups can be joined and counted.
     *
     * @param  string  $meant  as above
     * @return list<string> two bytes for each finding: its row, or NOT_MEANT
     */
    public function rowsOf(string $meant): array
    {
        // All at once, for there are millions: each byte becomes two that leave a row as it is, or make it no row at all.
        $rows = $this->rows | str_replace(["\0", "\1", "\2"], ["\2\2", "\0\0", "\xFF"], $meant);
        $ofStretch = [];
        $passed = 0;
        foreach ($this->counts() as $findings) {
            $ofStretch[] = substr($rows, $passed, 2 * $findings);
            $passed += 2 * $findings;
        }

        return $ofStretch;
    }

    /**
     * @param  list<string>  $rows  for each stretch of the part a byte for each of its rows, in their order: 1 where it is asked for, else
     *     0; empty where none of them is
     * @return string a byte for each finding of the part: 1 where it stands in such a row, else 0
     */
    public function inRows(array $rows): string
    {
        $flags = '';
        $passed = 0;
        foreach ($this->counts() as $stretch => $findings) {
            if ($rows[$stretch] === '') {
                $flags .= str_repeat("\0", $findings);
            } else {
                foreach (self::numbers(substr($this->rows, $passed, 2 * $findings)) as $row) {
                    $flags .= $rows[$stretch][$row];
                }
            }
            $passed += 2 * $findings;
        }

        return $flags;
    }

    /**
     * @param  string  $rows  of one stretch, of any groups
     * @return array<int, int> row, counted from the beginning of the stretch => how many of its findings are meant, if any
     */
    public static function findingsByRow(string $rows): array
    {
        // The higher byte of a row never has all bits set: two such bytes are NOT_MEANT, wherever they stand.
        return array_count_values(self::numbers(str_replace(self::NOT_MEANT, '', $rows)));
    }

    /** @return list<int> */
    private static function numbers(string $bytes): array
    {
        /** @var array<int, int>|false $numbers */
        $numbers = $bytes === '' ? [] : unpack('v*', $bytes);

        return $numbers === false ? throw new \UnexpectedValueException('Numbers of two bytes are cut off.') : array_values($numbers);
    }
}
