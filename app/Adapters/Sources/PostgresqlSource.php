<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

use App\Adapters\Sources\InPlace\AsksInPlace;
use App\Adapters\Sources\InPlace\Dialect;
use App\Problems\NoRoom;
use Illuminate\Database\QueryException;
use NineTally\Core\Intake\UnreadableFile;

/** Rows come by COPY, which writes every value as text and holds one row at a time. */
final readonly class PostgresqlSource implements AsksInPlace
{
    use BindsValues;

    private const ROWS_BETWEEN_REPORTS = 5_000;

    /** @param string $name by which people know it */
    public function __construct(
        private string $name,
        private SourceAddress $address,
        private Authorities $authorities,
        private int $mostBytes,
    ) {}

    public function greeting(): string
    {
        $rows = $this->catalogue()->rows(
            'SELECT current_setting(\'server_version\') AS version, (SELECT count(*) FROM information_schema.tables '.
                "WHERE table_schema NOT IN ('pg_catalog', 'information_schema')) AS tables",
        );

        return "PostgreSQL {$rows[0]['version']}, with {$rows[0]['tables']} tables that can be read";
    }

    public function tables(): array
    {
        return array_map(
            static fn(array $row): array => [
                'name' => (string) $row['name'],
                'kind' => $row['kind'] === 'view' ? 'view' : 'table',
                'rows' => (float) $row['rows'] < 0 ? null : (int) $row['rows'],
            ],
            $this->catalogue()->rows(
                <<<'SQL'
                SELECT CASE n.nspname WHEN 'public' THEN '' ELSE quote_ident(n.nspname) || '.' END || quote_ident(c.relname) AS name,
                    c.reltuples AS rows,
                    CASE WHEN c.relkind IN ('v', 'm') THEN 'view' ELSE 'table' END AS kind
                FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
                WHERE c.relkind IN ('r', 'p', 'v', 'm', 'f') AND n.nspname NOT IN ('pg_catalog', 'information_schema')
                    AND n.nspname NOT LIKE 'pg\_toast%' AND has_table_privilege(c.oid, 'SELECT')
                ORDER BY 1 LIMIT 2000
                SQL
                ,
            ),
        );
    }

    public function columns(string $table): array
    {
        return $this->catalogue()->columns($table, <<<'SQL'
            SELECT a.attname AS name, format_type(a.atttypid, a.atttypmod) AS kind, coalesce(a.attnum = ANY (i.indkey), false) AS key
            FROM pg_attribute a LEFT JOIN pg_index i ON i.indrelid = a.attrelid AND i.indisprimary
            WHERE a.attrelid = to_regclass(?) AND a.attnum > 0 AND NOT a.attisdropped AND has_table_privilege(a.attrelid, 'SELECT')
            ORDER BY a.attnum
            SQL, [$table], static fn(array $row): bool => (bool) $row['key']);
    }

    public function statement(string $table, array $columns, string $where, array $orderBy): string
    {
        // As the database itself writes the name of a table that is there: so it can be nothing else.
        $name = $this->catalogue()->rows('SELECT to_regclass(?)::text AS name', [$table])[0]['name']
            ?? throw new SourceProblem("There is no table \"{$table}\" here that this user may read.");

        return TableStatement::of((string) $name, array_map(self::quotedName(...), $columns), $where, $orderBy, self::quotedName(...));
    }

    public function dialect(): Dialect
    {
        return Dialect::Postgresql;
    }

    public function snapshot(string $sql, string $path, \Closure $onProgress): ?Snapshot
    {
        $sql = rtrim(trim($sql), ';');
        $columns = $this->columnsOf($sql);
        $most = $this->address->limits->rows;
        $limited = $most === null ? $sql : "SELECT * FROM ({$sql}\n) AS limited LIMIT ".($most + 1);
        $copied = "{$path}.copy";
        try {
            $isOver = false;
            $isWhole = (new CopyOfQuery(fn(): \PDO => $this->open()))->into(
                $copied,
                $limited,
                function (int $bytes) use ($onProgress, &$isOver): bool {
                    $isOver = $bytes > $this->mostBytes;

                    return ! $isOver && $onProgress(0, $bytes);
                },
            );
            if ($isOver) {
                throw UnreadableFile::queryFails($this->name, sprintf('its rows are more than %s bytes', number_format($this->mostBytes)));
            }

            return $isWhole ? $this->written($copied, $path, $columns, $onProgress) : null;
        } catch (QueryException $ours) {
            // Of the own database, to which progress is told.
            throw $ours;
        } catch (\PDOException $problem) {
            throw UnreadableFile::queryFails($this->name, SourceProblem::plain($problem->getMessage()));
        } finally {
            @unlink($copied);
        }
    }

    /**
     * Prepared, and so one statement alone, which gives rows.
     *
     * @return list<string>
     */
    private function columnsOf(string $sql): array
    {
        try {
            $query = $this->open()->prepare("SELECT * FROM ({$sql}\n) AS snapshot LIMIT 0");
            $query->execute();
        } catch (\PDOException $problem) {
            throw UnreadableFile::queryFails($this->name, SourceProblem::plain($problem->getMessage()));
        }

        return NamedColumns::of($query, $this->name);
    }

    /**
     * From the text of COPY to an object a line, with everything as the database wrote it.
     *
     * @param  list<string>  $columns
     * @param  \Closure(int, int): bool  $onProgress
     */
    private function written(string $copied, string $path, array $columns, \Closure $onProgress): ?Snapshot
    {
        $from = @fopen($copied, 'rb') ?: throw UnreadableFile::queryFails($this->name, 'it gives no row');
        $file = @fopen($path, 'wb') ?: throw NoRoom::writing();
        $rows = $bytes = 0;
        try {
            while (($line = fgets($from)) !== false) {
                $text = self::line($columns, rtrim($line, "\n"));
                $bytes += strlen($text);
                if (@fwrite($file, $text) !== strlen($text)) {
                    throw NoRoom::writing();
                }
                if (++$rows % self::ROWS_BETWEEN_REPORTS === 0 && ! $onProgress($rows, $bytes)) {
                    return null;
                }
            }
        } finally {
            fclose($from);
            fclose($file);
        }
        if ($this->address->limits->rows !== null && $rows > $this->address->limits->rows) {
            throw UnreadableFile::queryFails($this->name, $this->address->limits->tooManyRows());
        }

        return $rows === 0
            ? throw UnreadableFile::queryFails($this->name, 'it gives no row')
            : ($onProgress($rows, $bytes)
                ? new Snapshot($bytes)
                : null);
    }

    private function catalogue(): CatalogueQuery
    {
        return new CatalogueQuery($this->open(...), $this->address);
    }

    private function open(): \PDO
    {
        $address = $this->address;
        $mode = ['preferred' => 'prefer', 'required' => 'require', 'verified' => 'verify-full'][$address->encryption->mode] ?? 'prefer';
        $authority = $this->authorities->fileOf($address->encryption);
        $authority = $authority === '' ? '' : ";sslrootcert={$authority}";
        $database = new \PDO(
            "pgsql:host={$address->host};port={$address->port};dbname={$address->database};connect_timeout=10;sslmode={$mode}{$authority}",
            $address->user,
            $address->password,
            [\PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION, \PDO::ATTR_EMULATE_PREPARES => false],
        );
        $database->exec('SET default_transaction_read_only = on');
        $database->exec('SET statement_timeout = '.$address->limits->seconds * 1_000);

        return $database;
    }

    private static function quotedName(string $name): string
    {
        return '"'.str_replace('"', '""', $name).'"';
    }

    /**
     * @param  list<string>  $columns
     * @param  string  $line  as COPY writes it (PostgreSQL, COPY, File Formats)
     */
    private static function line(array $columns, string $line): string
    {
        $cells = array_map(
            static fn(string $cell): ?string => $cell === '\N' ? null : (str_contains($cell, '\\') ? stripcslashes($cell) : $cell),
            explode("\t", $line),
        );

        return RowLine::of($columns, $cells);
    }
}
