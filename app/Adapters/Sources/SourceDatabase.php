<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

/**
 * A database that rows are drawn from: read and nothing else, in one consistent view, for so long and so many rows as its connection
 * says.
 *
 * @phpstan-type SourceTable array{name: string, kind: 'table'|'view', rows: int|null}
 * @phpstan-type SourceColumn array{name: string, kind: string, isKey: bool}
 */
interface SourceDatabase extends RowSource
{
    /**
     * @return list<SourceTable> that can be read, by name; rows as the database estimates them, where it does
     *
     * @throws SourceProblem
     */
    public function tables(): array;

    /**
     * @return list<SourceColumn> in their order
     *
     * @throws SourceProblem when there is no such table, or it may not be read
     */
    public function columns(string $table): array;

    /**
     * A query for the rows of a table.
     *
     * @param  list<string>  $columns  none: all of them
     * @param  string  $where  a condition as the database understands it; '' for all rows
     * @param  list<string>  $orderBy
     */
    public function statement(string $table, array $columns, string $where, array $orderBy): string;

    /**
     * The first rows of a query, to look at: values as near to how they are drawn as the driver has them.
     *
     * @return list<array<string, string|null>>
     *
     * @throws SourceProblem
     */
    public function look(string $sql, int $rows): array;

    /**
     * A query with values in place of the names that stand in it after a colon, as this database quotes them.
     *
     * @param  array<string, string>  $values  by name
     *
     * @throws SourceProblem when a value is not said, or the database cannot be entered
     */
    public function bound(string $sql, array $values): string;
}
