<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

/** The query for the rows of a table that somebody chose. */
final readonly class TableStatement
{
    /**
     * @param  string  $table  quoted
     * @param  list<string>  $selected  expressions as they are to stand; none for every column
     * @param  list<string>  $orderBy
     * @param  \Closure(string): string  $quoted
     */
    public static function of(string $table, array $selected, string $where, array $orderBy, \Closure $quoted): string
    {
        return 'SELECT '.($selected === [] ? '*' : implode(', ', $selected))." FROM {$table}".
            (trim($where) === '' ? '' : ' WHERE '.trim($where)).
            ($orderBy === [] ? '' : ' ORDER BY '.implode(', ', array_map($quoted, $orderBy)));
    }
}
