<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

use App\Adapters\Sources\InPlace\AsksInPlace;
use App\Adapters\Sources\InPlace\Dialect;
use App\Adapters\Sources\InPlace\SqliteFunctions;

/** A file below the folder that whoever installs has named for it; opened so that it cannot be written. */
final readonly class SqliteSource implements AsksInPlace
{
    use BindsValues;

    public function __construct(private string $name, private SourceAddress $address, private string $folder, private int $mostBytes) {}

    public function greeting(): string
    {
        $rows = $this->catalogue()->rows(
            'SELECT sqlite_version() AS version, (SELECT count(*) FROM sqlite_schema WHERE type IN (\'table\', \'view\')) AS tables',
        );

        return "SQLite {$rows[0]['version']}, with {$rows[0]['tables']} tables";
    }

    public function tables(): array
    {
        return array_map(
            static fn(array $row): array => [
                'name' => (string) $row['name'],
                'kind' => $row['kind'] === 'view' ? 'view' : 'table',
                'rows' => null,
            ],
            $this->catalogue()->rows(
                "SELECT name, type AS kind FROM sqlite_schema WHERE type IN ('table', 'view') AND name NOT LIKE 'sqlite\\_%' ESCAPE '\\' ".
                    'ORDER BY 1 LIMIT 2000',
            ),
        );
    }

    public function columns(string $table): array
    {
        return $this->catalogue()->columns(
            $table,
            'SELECT name, lower(type) AS kind, pk AS key FROM pragma_table_xinfo(?) WHERE hidden <> 1',
            [$table],
            static fn(array $row): bool => (int) $row['key'] > 0,
        );
    }

    public function statement(string $table, array $columns, string $where, array $orderBy): string
    {
        return TableStatement::of(self::quoted($table), array_map(self::quoted(...), $columns), $where, $orderBy, self::quoted(...));
    }

    public function dialect(): Dialect
    {
        return Dialect::Sqlite;
    }

    public function snapshot(string $sql, string $path, \Closure $onProgress): ?Snapshot
    {
        // A cell of SQLite may be of any kind, whatever its column is called.
        $rows = new RowsOfQuery(
            $this->name,
            $this->address,
            $this->mostBytes,
            $this->open(...),
            self::text(...),
        );

        return $rows->into($path, rtrim(trim($sql), ';'), $onProgress, static fn(string $session) => null);
    }

    /** A value as it is drawn; one that is no text as hexadecimal digits. */
    private static function text(mixed $value): ?string
    {
        return match (true) {
            $value === null => null,
            // The shortest writing that is read back as the same number.
            is_float($value) => json_encode($value, JSON_THROW_ON_ERROR | JSON_PRESERVE_ZERO_FRACTION),
            is_string($value) => mb_check_encoding($value, 'UTF-8') && ! str_contains($value, "\0") ? $value : '\\x'.bin2hex($value),
            is_scalar($value) => (string) $value,
            default => '',
        };
    }

    private function catalogue(): CatalogueQuery
    {
        return new CatalogueQuery($this->open(...), $this->address);
    }

    private function open(): \PDO
    {
        $folder = realpath($this->folder);
        $file = realpath("{$this->folder}/{$this->address->database}");
        if ($folder === false || $file === false || ! str_starts_with($file, "{$folder}/")) {
            throw new \PDOException('unable to open database file');
        }
        $database = new \PDO("sqlite:{$file}", options: [
            \PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION,
            \PDO::SQLITE_ATTR_OPEN_FLAGS => \PDO::SQLITE_OPEN_READONLY,
        ]);
        // One view of the file, as long as it is read; what else writes it waits.
        $database->exec('PRAGMA query_only = on');
        $database->exec('PRAGMA trusted_schema = off');
        $database->exec('BEGIN');
        SqliteFunctions::lend($database, self::text(...));

        return $database;
    }

    private static function quoted(string $name): string
    {
        return '"'.str_replace('"', '""', $name).'"';
    }
}
