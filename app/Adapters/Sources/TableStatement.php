<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

/** The query for the rows of a table that somebody chose. */
final readonly class TableStatement
{
    /**
     * @param  string  $table  quoted
     * @param  list<string>  $columns
     * @param  list<string>  $orderBy
     * @param  \Closure(string): string  $quoted
     */
    public static function of(string $table, array $columns, string $where, array $orderBy, \Closure $quoted): string
    {
        return 'SELECT '.($columns === [] ? '*' : implode(', ', array_map($quoted, $columns)))." FROM {$table}".
            (trim($where) === '' ? '' : ' WHERE '.trim($where)).
            ($orderBy === [] ? '' : ' ORDER BY '.implode(', ', array_map($quoted, $orderBy)));
    }
}
