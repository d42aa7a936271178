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
        /** @var array{line: int} $line */
        $line = unpack('Jline', $this->packed, 8 * $place);

        return $base + $line['line'];
    }
}
