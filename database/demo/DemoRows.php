<?php

declare(strict_types=1);

namespace Database\Demo;

/** The rows of one side of a dataset, as they were made. */
final readonly class DemoRows
{
    /**
     * @param  list<string>  $columns
     * @param  iterable<list<string>>  $cells  of each row, in the order of the columns
     */
    public function __construct(public array $columns, public iterable $cells) {}

    /**
     * @param  array<string, string>  $columns  the name under which a cell is found in a row => how this side calls it
     * @param  list<array<string, string>>  $rows
     */
    public static function named(array $columns, array $rows): self
    {
        return new self(array_values($columns), (static function () use ($columns, $rows): iterable {
            foreach ($rows as $row) {
                yield array_map(static fn(string $name): string => $row[$name] ?? '', array_keys($columns));
            }
        })());
    }
}
