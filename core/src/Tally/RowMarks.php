<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

/** One byte for each row, in order: what an array of them would need sixteen times the memory for. */
final class RowMarks
{
    private string $bytes;

    public function __construct(int $rows, string $mark)
    {
        $this->bytes = str_repeat($mark, $rows);
    }

    /** @param list<int> $rows numbers from 0 */
    public function set(array $rows, string $mark): void
    {
        foreach ($rows as $row) {
            $this->bytes[$row] = $mark;
        }
    }

    public function is(int $row, string $mark): bool
    {
        return $this->bytes[$row] === $mark;
    }

    public function count(string $mark): int
    {
        return substr_count($this->bytes, $mark);
    }
}
