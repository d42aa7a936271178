<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

use App\Adapters\Sources\InPlace\AsksInPlace;
use App\Adapters\Sources\InPlace\Dialect;

/** MySQL and MariaDB: rows come unbuffered, in one consistent snapshot that may only read; every value as the database writes it. */
final readonly class MysqlSource implements AsksInPlace
{
    use BindsValues;

    /** Kinds whose bytes are no text. */
    private const BINARY = ['binary', 'varbinary', 'tinyblob', 'blob', 'mediumblob', 'longblob', 'bit', 'geometry'];

    public function __construct(
        private string $name,
        private SourceAddress $address,
        private Authorities $authorities,
        private int $mostBytes,
    ) {}

    public function greeting(): string
    {
        $rows = $this->catalogue()->rows(
            'SELECT version() AS version, (SELECT count(*) FROM information_schema.tables WHERE table_schema = database()) AS tables',
        );
        $version = (string) $rows[0]['version'];

        return (str_contains($version, 'MariaDB') ? 'MariaDB ' : 'MySQL ').
            explode('-', $version)[0].
            " with {$rows[0]['tables']} tables that can be read";
    }

    public function tables(): array
    {
        return array_map(
            static fn(array $row): array => [
                'name' => (string) $row['name'],
                'kind' => $row['kind'] === 'VIEW' ? 'view' : 'table',
                'rows' => $row['rows_about'] === null ? null : (int) $row['rows_about'],
            ],
            $this->catalogue()->rows(
                'SELECT table_name AS name, table_type AS kind, table_rows AS rows_about FROM information_schema.tables '.
                    'WHERE table_schema = database() ORDER BY 1 LIMIT 2000',
            ),
        );
    }

    public function columns(string $table): array
    {
        return $this->catalogue()->columns(
            $table,
            'SELECT column_name AS name, column_type AS kind, column_key AS is_key FROM information_schema.columns '.
                'WHERE table_schema = database() AND table_name = ? ORDER BY ordinal_position',
            [$table],
            static fn(array $row): bool => $row['is_key'] === 'PRI',
        );
    }

    public function statement(string $table, array $columns, string $where, array $orderBy): string
    {
        $known = array_column($this->columns($table), 'kind', 'name');
        $quoted = self::quoted(...);
        $select = array_map(
            static fn(int|string $name): string => in_array(preg_replace('/\W.*/s', '', $known[$name] ?? ''), self::BINARY, true)
                ? "concat('\\\\x', lower(hex({$quoted((string) $name)}))) AS {$quoted((string) $name)}"
                : $quoted((string) $name),
            $columns === [] ? array_keys($known) : $columns,
        );

        return TableStatement::of(self::quoted($table), $select, $where, $orderBy, $quoted);
    }

    public function dialect(): Dialect
    {
        return Dialect::Mysql;
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

        return $rows->into($path, rtrim(trim($sql), ';'), $onProgress, $this->end(...));
    }

    /** What the child's connection does is ended by another one. */
    private function end(string $session): void
    {
        try {
            $session === '' || $this->open()->exec('KILL '.(int) $session);
        } catch (\PDOException) {
            // The database is away, and the query with it.
        }
    }

    private function catalogue(): CatalogueQuery
    {
        return new CatalogueQuery($this->open(...), $this->address);
    }

    private function open(): \PDO
    {
        $address = $this->address;
        $tls = $address->encryption->mode === 'preferred' ? [] : [
            \PDO::MYSQL_ATTR_SSL_CA => $this->authorities->fileOf($address->encryption),
            \PDO::MYSQL_ATTR_SSL_VERIFY_SERVER_CERT => $address->encryption->mode === 'verified',
        ];
        $database = new \PDO(
            // A name is asked of the network, also that of this computer: a socket would be another place.
            sprintf(
                'mysql:host=%s;port=%d;dbname=%s;charset=utf8mb4',
                $address->host === 'localhost' ? '127.0.0.1' : $address->host,
                $address->port,
                $address->database,
            ),
            $address->user,
            $address->password,
            [
                \PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION,
                \PDO::ATTR_TIMEOUT => 10,
                // By its text protocol every value comes as the database writes it.
                \PDO::ATTR_EMULATE_PREPARES => true,
                \PDO::ATTR_STRINGIFY_FETCHES => true,
                \PDO::MYSQL_ATTR_USE_BUFFERED_QUERY => false,
                \PDO::MYSQL_ATTR_MULTI_STATEMENTS => false,
            ] + $tls,
        );
        // Times of moments are written in one zone, whatever that of the server is.
        $database->exec("SET time_zone = '+00:00'");
        $database->exec('SET SESSION TRANSACTION ISOLATION LEVEL REPEATABLE READ');
        $database->exec('START TRANSACTION WITH CONSISTENT SNAPSHOT, READ ONLY');

        return $database;
    }

    private static function quoted(string $name): string
    {
        return '`'.str_replace('`', '``', $name).'`';
    }
}
