<?php

declare(strict_types=1);

namespace NineTally\Core\Matching\RowSets;

use NineTally\Core\Intake\Batch;

/**
 * The rows of a part or a delivery, in any order, each as often as it stands there.
 *
 * A row is told from another by a hash of 64 bits: among 10 million rows the chance that any two different ones meet is under one in
 * 100,000, and then one row of all is counted wrong. Memory is bounded: what is many is put into files, 32 bytes a row.
 */
final class RowMultiset
{
    private readonly GroupParts $parts;

    private int $rows = 0;

    /** @param string $folder that it writes to when there are many */
    public function __construct(string $folder)
    {
        $this->parts = new GroupParts($folder);
    }

    /**
     * @param  list<string>  $cells  in an order that is the same wherever rows are compared
     * @param  list<int>|null  $key  places of the cells that say which row is which; null: the whole row does
     */
    public function add(array $cells, ?array $key = null): void
    {
        $row = hash('xxh3', implode(Batch::CELL_END, $cells), true);
        $ofKey =
            $key === null
                ? $row
                : hash('xxh3', implode(Batch::CELL_END, array_map(static fn(int $place): string => $cells[$place], $key)), true);
        $this->parts->put($ofKey, $row);
        $this->rows++;
    }

    public function rows(): int
    {
        return $this->rows;
    }

    /** What became of these rows in the others. */
    public function changesTo(self $after): RowChanges
    {
        $same = $changed = 0;
        for ($part = 0; $part < GroupParts::PARTS; $part++) {
            [$sameHere, $changedHere] = $this->compare($this->parts->part($part), $after->parts->part($part));
            $same += $sameHere;
            $changed += $changedHere;
        }

        return new RowChanges($same, $changed, $this->rows - $same - $changed, $after->rows - $same - $changed);
    }

    /** @return array<array-key, int> how often each key of a part stands there */
    private function times(int $part): array
    {
        $times = [];
        foreach ($this->parts->part($part) as [$key]) {
            $times[$key] = ($times[$key] ?? 0) + 1;
        }

        return $times;
    }

    /** How the keys of these rows meet those of the other side. */
    public function meeting(self $target): KeyMeeting
    {
        $met = $oneToOne = 0;
        $sharing = ['source' => 0, 'target' => 0];
        for ($part = 0; $part < GroupParts::PARTS; $part++) {
            [$here, $there] = [$this->times($part), $target->times($part)];
            foreach ($here as $key => $times) {
                $timesThere = $there[$key] ?? 0;
                $met += min($times, $timesThere);
                $oneToOne += $times === 1 && $timesThere === 1 ? 1 : 0;
                $sharing['source'] += $times > 1 ? $times : 0;
            }
            $sharing['target'] += array_sum(array_filter($there, static fn(int $times): bool => $times > 1));
        }

        return new KeyMeeting($met, $oneToOne, $sharing);
    }

    public function remove(): void
    {
        $this->parts->remove();
    }

    /**
     * @param  iterable<array{string, string}>  $before  hash of the key and of the row
     * @param  iterable<array{string, string}>  $after
     * @return array{int, int} rows that are the same, and rows whose key stands in both and that are not
     */
    private function compare(iterable $before, iterable $after): array
    {
        $left = $new = [];
        foreach ($before as [$key, $row]) {
            $left[$key.$row] = ($left[$key.$row] ?? 0) + 1;
        }
        $same = 0;
        foreach ($after as [$key, $row]) {
            if (($left[$key.$row] ?? 0) > 0) {
                $left[$key.$row]--;
                $same++;
            } elseif ($key !== $row) {
                $new[$key] = ($new[$key] ?? 0) + 1;
            }
        }
        $changed = 0;
        foreach ($new === [] ? [] : $left as $entry => $times) {
            $key = substr((string) $entry, 0, 8);
            $met = min($times, $new[$key] ?? 0);
            if ($met > 0) {
                $new[$key] -= $met;
                $changed += $met;
            }
        }

        return [$same, $changed];
    }
}
