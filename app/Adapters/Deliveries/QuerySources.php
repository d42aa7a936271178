<?php

declare(strict_types=1);

namespace App\Adapters\Deliveries;

use App\Models\Migration;
use App\Problems\NoRoom;
use Illuminate\Database\QueryException;
use NineTally\Core\Intake\UnreadableFile;

/**
 * Databases that whoever installs Nine Tally has made known, each by a name. A query on one is written down as JSON Lines, an object a
 * row with its columns in their order: text as the database writes it, so no number is bent, and null where it is null. That file is the
 * delivery.
 */
final readonly class QuerySources
{
    private const SECONDS = 1_800;

    private const ROWS_BETWEEN_REPORTS = 5_000;

    /**
     * @param  array<string, array{host: string, port: int, database: string, user: string, password: string, migration?: string}>  $sources
     */
    public function __construct(private array $sources, private int $mostBytes) {}

    /** @return list<string> of a migration: who installs says which it belongs to, and it is nobody else's */
    public function names(Migration $migration): array
    {
        return array_keys(
            array_filter($this->sources, static fn(array $source): bool => ($source['migration'] ?? null) === $migration->name),
        );
    }

    /**
     * @param  \Closure(int, int): bool  $onProgress  told rows and bytes; false ends the query, in the database too
     * @return int|null bytes; null when it was ended
     *
     * @throws UnreadableFile
     */
    public function snapshot(Migration $migration, string $source, string $sql, string $path, \Closure $onProgress): ?int
    {
        $facts = in_array($source, $this->names($migration), true)
            ? $this->sources[$source]
            : throw UnreadableFile::queryFails($source, 'no database of this name is known in this migration');
        $sql = rtrim(trim($sql), ';');
        $columns = $this->columns($facts, $source, $sql);
        $copied = "{$path}.copy";
        try {
            $isOver = false;
            $isWhole = (new CopyOfQuery(fn(): \PDO => $this->open($facts)))->into(
                $copied,
                $sql,
                function (int $bytes) use ($onProgress, &$isOver): bool {
                    $isOver = $bytes > $this->mostBytes;

                    return ! $isOver && $onProgress(0, $bytes);
                },
            );
            if ($isOver) {
                throw UnreadableFile::queryFails($source, sprintf('its rows are more than %s bytes', number_format($this->mostBytes)));
            }
            if (! $isWhole) {
                return null;
            }

            return $this->written($copied, $path, $columns, $source, $onProgress);
        } catch (QueryException $ours) {
            // Of the own database, to which progress is told.
            throw $ours;
        } catch (\PDOException $problem) {
            throw UnreadableFile::queryFails($source, self::reason($problem->getMessage()));
        } finally {
            @unlink($copied);
        }
    }

    /**
     * Prepared, and so one statement alone, which gives rows.
     *
     * @param  array{host: string, port: int, database: string, user: string, password: string, migration?: string}  $facts
     * @return list<string>
     */
    private function columns(array $facts, string $source, string $sql): array
    {
        try {
            $query = $this->open($facts)->prepare("SELECT * FROM ({$sql}\n) AS snapshot LIMIT 0");
            $query->execute();
        } catch (\PDOException $problem) {
            throw UnreadableFile::queryFails($source, self::reason($problem->getMessage()));
        }
        $names = array_map(
            static fn(int $place): string => ($query->getColumnMeta($place) ?: [])['name'] ?? '',
            range(0, max(0, $query->columnCount() - 1)),
        );
        $twice = array_keys(array_filter(array_count_values($names), static fn(int $times): bool => $times > 1));
        if ($twice !== []) {
            throw UnreadableFile::queryFails(
                $source,
                sprintf('two of its columns are called "%s"; give one another name with AS', $twice[0]),
            );
        }

        return $names;
    }

    /**
     * From the text of COPY to an object a line, with everything as the database wrote it.
     *
     * @param  list<string>  $columns
     * @param  \Closure(int, int): bool  $onProgress
     */
    private function written(string $copied, string $path, array $columns, string $source, \Closure $onProgress): ?int
    {
        $from = @fopen($copied, 'rb') ?: throw UnreadableFile::queryFails($source, 'it gives no row');
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

        return $rows === 0 ? throw UnreadableFile::queryFails($source, 'it gives no row') : ($onProgress($rows, $bytes) ? $bytes : null);
    }

    /** @param array{host: string, port: int, database: string, user: string, password: string, migration?: string} $facts */
    private function open(array $facts): \PDO
    {
        $database = new \PDO(
            sprintf('pgsql:host=%s;port=%d;dbname=%s;connect_timeout=10', $facts['host'], $facts['port'], $facts['database']),
            $facts['user'],
            $facts['password'],
            [\PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION, \PDO::ATTR_EMULATE_PREPARES => false],
        );
        $database->exec('SET default_transaction_read_only = on');
        $database->exec('SET statement_timeout = '.self::SECONDS * 1000);

        return $database;
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

        return json_encode(
            array_combine($columns, $cells),
            JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_INVALID_UTF8_SUBSTITUTE | JSON_FORCE_OBJECT,
        )."\n";
    }

    /** What the database says, without the code before it and the statement behind it. */
    private static function reason(string $problem): string
    {
        $text =
            preg_replace(['/^SQLSTATE\[\w+\](?: \[\d+\])?:?\s*(?:[^:]*: \d+ )?/', '/\s*LINE \d+:.*$/s'], '', $problem) ?? '';

        return lcfirst(preg_replace('/^(?:ERROR|FATAL):\s*/', '', trim($text)) ?? '');
    }
}
