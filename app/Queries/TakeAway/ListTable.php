<?php

declare(strict_types=1);

namespace App\Queries\TakeAway;

/** A table of few lines, which are at hand; or of many, which are read while it is written. */
final readonly class ListTable implements Table
{
    /**
     * @param  list<TableField>  $fields
     * @param  iterable<list<string|int|float>>  $lines  read once
     * @param  list<string>  $primaryKey
     */
    public function __construct(private array $fields, private iterable $lines, private array $primaryKey) {}

    /**
     * @param  array<string, 'string'|'integer'|'datetime'|'boolean'>  $fields
     * @param  iterable<list<string|int>>  $lines  read once
     * @param  list<string>  $primaryKey
     */
    public static function of(array $fields, iterable $lines, array $primaryKey): self
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
        $nth = 0;
        foreach ($this->lines as $line) {
            yield ++$nth => $line;
        }
    }

    public function primaryKey(): array
    {
        return $this->primaryKey;
    }
}
