<?php

declare(strict_types=1);

namespace App\Adapters\Sources\InPlace;

/**
 * What a database is asked with. Rows are put into groups by a hash of their key; of each group the hashes of its rows are added up, twice,
 * which says the same in whatever order they stand and however often (an incremental multiset hash; Clarke and others, Asiacrypt 2003).
 * Cells go into a hash as the database writes them when rows are drawn, each with its length before it, so that no two rows are told alike
 * that are not.
 */
enum Dialect
{
    /** Of two databases of PostgreSQL: by its own hash of a row, which is faster. */
    case PostgresqlAlone;
    case Postgresql;
    case Mysql;
    case Sqlite;

    /** Groups with their rows, those of them without a proper key, and both sums; in the order of the groups. */
    public function groups(string $sql, GroupedKey $key): string
    {
        return 'SELECT bucket, count(*) AS row_count, sum(odd) AS odd, '.($this === self::Sqlite
            ? 'tally_sum(one) AS one, tally_sum(two) AS two'
            : 'sum(one) AS one, sum(two) AS two').
            " FROM (SELECT {$this->bucket($key)} AS bucket, {$this->odd($key)} AS odd, {$this->number($key, 1)} AS one, ".
            "{$this->number($key, 2)} AS two FROM ({$sql}\n) AS asked) AS told GROUP BY bucket ORDER BY bucket";
    }

    /** Groups in which a key stands more than once. */
    public function repeats(string $sql, GroupedKey $key): string
    {
        $columns = implode(', ', array_map($this->quoted(...), $key->key));

        return "SELECT DISTINCT bucket FROM (SELECT {$this->bucket($key)} AS bucket FROM ({$sql}\n) AS asked GROUP BY {$columns} ".
            'HAVING count(*) > 1) AS told ORDER BY bucket';
    }

    /** @param non-empty-list<int> $groups whose rows are drawn */
    public function rows(string $sql, GroupedKey $key, array $groups): string
    {
        return "SELECT * FROM ({$sql}\n) AS asked WHERE {$this->bucket($key)} IN (".implode(',', $groups).')';
    }

    private function bucket(GroupedKey $key): string
    {
        $text = $this->text($key->key);

        return match ($this) {
            // The remainder of a negative number is negative.
            self::PostgresqlAlone => "mod(hashtextextended({$text}, 0) & 9223372036854775807, {$key->groups})",
            self::Postgresql => "('x' || substr(md5({$text}), 1, 8))::bit(32)::bigint % {$key->groups}",
            self::Mysql => "CAST(CONV(SUBSTR(MD5({$text}), 1, 8), 16, 10) AS UNSIGNED) % {$key->groups}",
            self::Sqlite => "CAST(tally_number({$text}, 0, 8) AS INTEGER) % {$key->groups}",
        };
    }

    private function number(GroupedKey $key, int $nth): string
    {
        $text = $this->text($key->all());
        $from = $nth === 1 ? 1 : 17;

        return match ($this) {
            // 64 bits of each row; a second look at it would take as long again.
            self::PostgresqlAlone => $nth === 1 ? "hashtextextended({$text}, 1)" : '0',
            self::Postgresql => "('x' || substr(md5({$text}), {$from}, 15))::bit(60)::bigint",
            self::Mysql => "CAST(CONV(SUBSTR(MD5({$text}), {$from}, 15), 16, 10) AS UNSIGNED)",
            self::Sqlite => "tally_number({$text}, ".($from - 1).', 15)',
        };
    }

    /** 1 where a part of the key holds no letter and no digit: such a row is looked at by the engine. */
    private function odd(GroupedKey $key): string
    {
        $is = array_map(fn(string $column): string => match ($this) {
            self::PostgresqlAlone, self::Postgresql => "concat({$this->quoted($column)}) !~ '[[:alnum:]]'",
            self::Mysql => "NOT coalesce({$this->quoted($column)} REGEXP '[[:alnum:]]', 0)",
            self::Sqlite => "tally_odd({$this->cell($column)})",
        }, $key->key);

        return 'CASE WHEN '.implode(' OR ', $is).' THEN 1 ELSE 0 END';
    }

    /** @param list<string> $columns */
    private function text(array $columns): string
    {
        $quoted = array_map($this->quoted(...), $columns);

        return match ($this) {
            self::PostgresqlAlone => 'ROW('.implode(', ', $quoted).')::text',
            // By concat, for it writes values as they are drawn; a cast would cut blanks at the end of a fixed width.
            self::Postgresql => 'concat('.implode(', ', array_map(static function (string $column): string {
                return "CASE WHEN {$column} IS NULL THEN 'n' ELSE concat(octet_length(concat({$column})), ':', {$column}) END";
            }, $quoted)).')',
            self::Mysql => 'CONCAT('.
                implode(
                    ', ',
                    array_map(static fn(string $column): string => "COALESCE(CONCAT(LENGTH({$column}), ':', {$column}), 'n')", $quoted),
                ).
                ')',
            self::Sqlite => 'tally_text('.implode(', ', array_map($this->cell(...), $columns)).')',
        };
    }

    /** Of SQLite: what it lends to a function is cut to 32 bits where it is a whole number. */
    private function cell(string $column): string
    {
        $column = $this->quoted($column);

        return "CASE typeof({$column}) WHEN 'integer' THEN CAST({$column} AS TEXT) ELSE {$column} END";
    }

    private function quoted(string $name): string
    {
        return $this === self::Mysql ? '`'.str_replace('`', '``', $name).'`' : '"'.str_replace('"', '""', $name).'"';
    }
}
