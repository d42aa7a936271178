<?php

declare(strict_types=1);

namespace NineTally\Core\Matching\Spill;

/** Rows of one partition and side, in the order of their delivery: the same place in each list is the same row. */
final readonly class SpilledRows
{
    /**
     * @param  list<string>  $keys
     * @param  list<string>  $bodies
     * @param  list<string>  $rests  empty when rows are kept whole, or nothing but the key is left
     */
    public function __construct(public array $keys, public array $bodies, public array $rests, public PackedLines $lines) {}

    public function row(int $place): SpilledRow
    {
        $key = $this->keys[$place];

        return new SpilledRow($key, $this->bodies[$place], $this->rests[$place] ?? $key, $this->lines->at($place));
    }

    /**
     * With some rows of others among them, in the order of the lines.
     *
     * @param  list<int>  $places  of the others
     * @param  callable(int): int  $lineOf  a place among the others
     */
    public function with(self $others, array $places, callable $lineOf): self
    {
        $rows = [];
        foreach ($this->keys as $place => $key) {
            $rows[$this->lines->at($place)] = [$key, $this->bodies[$place]];
        }
        foreach ($places as $place) {
            $rows[$lineOf($place)] = [$others->keys[$place], $others->bodies[$place]];
        }
        ksort($rows);
        $lines = new PackedLines;
        foreach (array_keys($rows) as $line) {
            $lines->append(pack('J', $line), 0);
        }

        return new self(array_column($rows, 0), array_column($rows, 1), [], $lines);
    }
}
