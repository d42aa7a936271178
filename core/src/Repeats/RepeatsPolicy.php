<?php

declare(strict_types=1);

namespace NineTally\Core\Repeats;

use NineTally\Core\Value\Kind;

/** What happens to rows of one side that share a key. */
final readonly class RepeatsPolicy
{
    /** @param string|null $column of the side, where the highest or lowest value decides */
    private function __construct(public PolicyId $id, public ?string $column = null, public Kind $kind = Kind::Text) {}

    public static function setAside(): self
    {
        return new self(PolicyId::SetAside);
    }

    public static function of(PolicyId $id): self
    {
        return $id->needsColumn() ? throw new \InvalidArgumentException("The policy {$id->value} needs a column.") : new self($id);
    }

    public static function byColumn(PolicyId $id, string $column, Kind $kind): self
    {
        return $id->needsColumn() ? new self($id, $column, $kind) : throw new \InvalidArgumentException("The policy {$id->value} needs no column.");
    }

    public function isDefault(): bool
    {
        return $this->id === PolicyId::SetAside;
    }

    /** @return array<string, string> as the plan writes it */
    public function toArray(): array
    {
        return ['policy' => $this->id->value, ...($this->column === null ? [] : ['column' => $this->column, 'kind' => $this->kind->value])];
    }
}
