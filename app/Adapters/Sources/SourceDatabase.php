<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

use NineTally\Core\Intake\UnreadableFile;

/**
 * A database that rows are drawn from: read and nothing else, in one consistent view, for so long and so many rows as its connection
 * says.
 *
 * @phpstan-type SourceTable array{name: string, kind: 'table'|'view', rows: int|null}
 * @phpstan-type SourceColumn array{name: string, kind: string, isKey: bool}
 */
interface SourceDatabase
{
    /**
     * What it is, in a few words: whoever hears them knows that it can be entered.
     *
     * @throws SourceProblem
     */
    public function greeting(): string;

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
     * The rows of a query as JSON Lines, an object a row with its columns in their order: text as the database writes it, so no number is
     * bent, binary as hexadecimal digits, and null where it is null.
     *
     * @param  \Closure(int, int): bool  $onProgress  told rows and bytes; false ends the query, in the database too
     * @return int|null bytes; null when it was ended
     *
     * @throws UnreadableFile
     */
    public function snapshot(string $sql, string $path, \Closure $onProgress): ?int;
}
