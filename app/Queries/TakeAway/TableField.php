<?php

declare(strict_types=1);

namespace App\Queries\TakeAway;

/** A column of a table that is taken away, as Table Schema describes it. */
final readonly class TableField
{
    /** @param 'string'|'integer'|'number'|'datetime'|'boolean' $type values of cells are always strings, as they were delivered */
    public function __construct(public string $name, public string $type, public string $description) {}

    /** @return array{name: string, type: string, description: string} */
    public function toArray(): array
    {
        return ['name' => $this->name, 'type' => $this->type, 'description' => $this->description];
    }
}
