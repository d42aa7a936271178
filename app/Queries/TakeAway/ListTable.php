<?php

declare(strict_types=1);

namespace App\Queries\TakeAway;

/** A table of few lines, which are at hand. */
final readonly class ListTable implements Table
{
    /**
     * @param  list<TableField>  $fields
     * @param  list<list<string|int|float>>  $lines
     * @param  list<string>  $primaryKey
     */
    public function __construct(private array $fields, private array $lines, private array $primaryKey) {}

    public function fields(): array
    {
        return $this->fields;
    }

    public function lines(): \Generator
    {
        foreach ($this->lines as $nth => $line) {
            yield $nth + 1 => $line;
        }
    }

    public function primaryKey(): array
    {
        return $this->primaryKey;
    }
}
