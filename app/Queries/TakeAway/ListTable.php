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

    /**
     * @param  array<string, 'string'|'integer'|'datetime'|'boolean'>  $fields
     * @param  list<list<string|int>>  $lines
     * @param  list<string>  $primaryKey
     */
    public static function of(array $fields, array $lines, array $primaryKey): self
    {
        return new self(
            array_map(
                static fn(string $name, string $type): TableField => new TableField($name, $type, ucfirst($name).'.'),
                array_keys($fields),
                $fields,
            ),
            $lines,
            $primaryKey,
        );
    }

    public static function boolean(bool $holds): string
    {
        return $holds ? 'true' : 'false';
    }

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
