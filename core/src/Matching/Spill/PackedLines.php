<?php

declare(strict_types=1);

namespace NineTally\Core\Matching\Spill;

/** Line numbers as they were written, eight bytes each: only those of findings are ever read. */
final class PackedLines
{
    private string $packed = '';

    /** @var list<array{int, int}> from which place on, which lines come before */
    private array $bases = [];

    public function append(string $packed, int $linesBefore): void
    {
        if ($this->bases === [] || $this->bases[count($this->bases) - 1][1] !== $linesBefore) {
            $this->bases[] = [intdiv(strlen($this->packed), 8), $linesBefore];
        }
        $this->packed .= $packed;
    }

    public function at(int $place): int
    {
        $base = 0;
        foreach ($this->bases as [$from, $linesBefore]) {
            if ($from > $place) {
                break;
            }
            $base = $linesBefore;
        }
        $at = 8 * $place;

        // As unpack() reads it, without an array for each.
        return $base +
            (ord($this->packed[$at]) << 56 |
                ord($this->packed[$at + 1]) << 48 |
                ord($this->packed[$at + 2]) << 40 |
                ord($this->packed[$at + 3]) << 32 |
                ord($this->packed[$at + 4]) << 24 |
                ord($this->packed[$at + 5]) << 16 |
                ord($this->packed[$at + 6]) << 8 |
                ord($this->packed[$at + 7]));
    }
}
