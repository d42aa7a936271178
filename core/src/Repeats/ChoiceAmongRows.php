<?php

declare(strict_types=1);

namespace NineTally\Core\Repeats;

/** Holds the rows of one key against what a person chose for it, while they pass. */
final class ChoiceAmongRows
{
    /** @var list<string> digests of all rows */
    private array $rows = [];

    private ?int $line = null;

    /** Whether these rows are those that were chosen among; null while it was not asked since the last of them passed. */
    private ?bool $holds = null;

    public function __construct(private readonly ChosenRow $chosen) {}

    /** @param string $cells of the row, joined by KeyTuple::SEPARATOR */
    public function see(int $line, string $cells): void
    {
        $this->holds = null;
        $this->rows[] = $digest = ChosenRow::rowDigest($cells);
        if ($digest === $this->chosen->row) {
            $this->line ??= $line;
        }
    }

    /** The line of the row that is kept, the first of exact copies; null where the rows are no longer those that were chosen among. */
    public function line(): ?int
    {
        // It is asked for each row, of which there may be many.
        $this->holds ??= ChosenRow::groupDigest($this->rows) === $this->chosen->group;

        return $this->holds ? $this->line : null;
    }
}
