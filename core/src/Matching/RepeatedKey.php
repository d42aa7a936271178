<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Repeats\KeptRow;

/** The rows of both sides that share one key, of which at least one side has several. */
final class RepeatedKey
{
    /** @var array{source: int, target: int} */
    public array $rows = ['source' => 0, 'target' => 0];

    /** @var array{source: array<string, true>, target: array<string, true>} distinct keys as they were delivered, two at most */
    private array $delivered = ['source' => [], 'target' => []];

    public function __construct(private readonly KeptRow $source, private readonly KeptRow $target) {}

    /** @param 'source'|'target' $side */
    public function see(string $side, int $line, string $row, string $deliveredKey): void
    {
        $this->rows[$side]++;
        ($side === 'source' ? $this->source : $this->target)->see($line, $row);
        if (count($this->delivered[$side]) < 2) {
            $this->delivered[$side]['k'.$deliveredKey] = true;
        }
    }

    /** Whether the columns that decide which row of a side is kept leave several that are equally good. */
    public function isUndecided(string $side): bool
    {
        return ($side === 'source' ? $this->source : $this->target)->isUndecided();
    }

    /** What became of a choice for the key: whether the row of a side is the one that a person chose, or the rows are other ones now. */
    public function choice(string $side): ?bool
    {
        $kept = $side === 'source' ? $this->source : $this->target;

        return match (true) {
            $kept->isChosen() => true,
            $kept->isReopened() => false,
            default => null,
        };
    }

    /** Whether a side's rows repeat only because the key forgives: their keys were delivered in more than one writing. */
    public function repeatsByForgiving(string $side): bool
    {
        return $this->rows[$side] > 1 && count($this->delivered[$side]) > 1;
    }

    /**
     * The line of the row that each side keeps, 0 where the side has none.
     *
     * @return array{source: int, target: int}|null null when the rows of the key are set aside on both sides
     */
    public function kept(): ?array
    {
        $kept = ['source' => 0, 'target' => 0];
        foreach (['source' => $this->source, 'target' => $this->target] as $side => $rows) {
            if ($this->rows[$side] > 0) {
                $line = $rows->line();
                if ($line === null) {
                    return null;
                }
                $kept[$side] = $line;
            }
        }

        return $kept;
    }
}
