<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

/**
 * SQL Server, and what a driver of ODBC leads to: kept to what PDO and the information schema of standard SQL (ISO/IEC 9075-11) share.
 * Values come as the driver writes them.
 */
final readonly class PdoSource implements SourceDatabase
{
    use BindsValues;

    public function __construct(private string $name, private SourceAddress $address, private int $mostBytes) {}

    public function greeting(): string
    {
        $tables = count($this->tables());

        return "{$this->address->kind->label()} with {$tables} ".($tables === 1 ? 'table' : 'tables').' that can be read';
    }

    public function tables(): array
    {
        return array_map(
            static fn(array $row): array => [
                'name' => "{$row['place']}.{$row['name']}",
                'kind' => $row['kind'] === 'VIEW' ? 'view' : 'table',
                'rows' => null,
            ],
            $this->catalogue()->rows(
                'SELECT table_schema AS place, table_name AS name, table_type AS kind FROM information_schema.tables '.
                    "WHERE lower(table_schema) NOT IN ('information_schema', 'pg_catalog', 'sys') ORDER BY 1, 2",
            ),
        );
    }

    public function columns(string $table): array
    {
        $of = self::parts($table);
        $keys = array_column($this->catalogue()->rows(
            'SELECT k.column_name AS name FROM information_schema.table_constraints c JOIN information_schema.key_column_usage k ON '.
                'k.constraint_name = c.constraint_name AND k.table_schema = c.table_schema AND k.table_name = c.table_name '.
                "WHERE c.constraint_type = 'PRIMARY KEY' AND c.table_schema = ? AND c.table_name = ?",
            $of,
        ), 'name');

        return $this->catalogue()->columns(
            $table,
            'SELECT column_name AS name, data_type AS kind FROM information_schema.columns '.
                'WHERE table_schema = ? AND table_name = ? ORDER BY ordinal_position',
            $of,
            static fn(array $row): bool => in_array($row['name'], $keys, true),
        );
    }

    public function statement(string $table, array $columns, string $where, array $orderBy): string
    {
        $this->columns($table);
        $quoted = $this->quoted(...);

        return TableStatement::of(
            implode('.', array_map($quoted, self::parts($table))),
            array_map($quoted, $columns),
            $where,
            $orderBy,
            $quoted,
        );
    }

    public function snapshot(string $sql, string $path, \Closure $onProgress): ?Snapshot
    {
        $rows = new RowsOfQuery(
            $this->name,
            $this->address,
            $this->mostBytes,
            $this->open(...),
            DrivenValue::text(...),
        );

        return $rows->into($path, rtrim(trim($sql), ';'), $onProgress, static fn(string $session) => null);
    }

    /** @return array{string, string} schema and name */
    private static function parts(string $table): array
    {
        $point = strpos($table, '.');

        return $point === false ? ['', $table] : [substr($table, 0, $point), substr($table, $point + 1)];
    }

    private function catalogue(): CatalogueQuery
    {
        return new CatalogueQuery($this->open(...), $this->address);
    }

    private function open(): \PDO
    {
        $address = $this->address;
        $isOdbc = $address->kind === SourceKind::Odbc;
        $database = new \PDO(
            $isOdbc
                ? "odbc:Driver={{$address->driver}};Server={$address->host};".
                    ($address->port === 0 ? '' : "Port={$address->port};")."Database={$address->database};"
                : "dblib:version=7.4;charset=UTF-8;host={$address->host}:{$address->port};dbname={$address->database}",
            $address->user,
            $address->password,
            [\PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION, \PDO::ATTR_TIMEOUT => 10],
        );
        // Of one moment where the database can, and read and nothing else where it knows that; it is rights that keep it from the rest.
        $this->begin($database, $isOdbc ? 'SET TRANSACTION READ ONLY' : 'SET TRANSACTION ISOLATION LEVEL SNAPSHOT', $isOdbc);

        return $database;
    }

    private function begin(\PDO $database, string $wish, bool $isWithin): void
    {
        try {
            $isWithin || $database->exec($wish);
            $database->beginTransaction();
            $isWithin && $database->exec($wish);
        } catch (\PDOException) {
            // It does not know this wish, and is read all the same.
            $database->inTransaction() && $database->rollBack();
            $database->beginTransaction();
        }
    }

    private function quoted(string $name): string
    {
        return $this->address->kind === SourceKind::SqlServer
            ? '['.str_replace(']', ']]', $name).']'
            : '"'.str_replace('"', '""', $name).'"';
    }
}
