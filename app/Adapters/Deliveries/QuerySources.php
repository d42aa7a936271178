<?php

declare(strict_types=1);

namespace App\Adapters\Deliveries;

use App\Problems\NoRoom;
use NineTally\Core\Intake\UnreadableFile;

/**
 * Databases that whoever installs Nine Tally has made known, each by a name. A query on one is written down as JSON Lines, an object a
 * row with its columns in their order: text as the database writes it, so no number is bent, and null where it is null. That file is the
 * delivery.
 */
final readonly class QuerySources
{
    private const ROWS_A_TIME = 2_000;

    private const SECONDS = 1_800;

    /** @param array<string, array{host: string, port: int, database: string, user: string, password: string}> $sources */
    public function __construct(private array $sources, private int $mostBytes) {}

    /** @return list<string> */
    public function names(): array
    {
        return array_keys($this->sources);
    }

    /**
     * @param  \Closure(int, int): void  $onProgress  told rows and bytes
     * @return int bytes
     *
     * @throws UnreadableFile
     */
    public function snapshot(string $source, string $sql, string $path, \Closure $onProgress): int
    {
        $facts = $this->sources[$source] ?? throw UnreadableFile::queryFails($source, 'no database of this name is known here');
        $file = @fopen($path, 'wb') ?: throw NoRoom::writing();
        $rows = $bytes = 0;
        try {
            $database = $this->open($facts);
            // Read-only, at one moment, and one statement alone: what is prepared cannot hold two.
            $database->exec('BEGIN TRANSACTION ISOLATION LEVEL REPEATABLE READ READ ONLY');
            $database->exec('SET LOCAL statement_timeout = '.self::SECONDS * 1000);
            $database->prepare('DECLARE snapshot NO SCROLL CURSOR FOR '.rtrim(trim($sql), ';'))->execute();
            $fetch = $database->prepare('FETCH '.self::ROWS_A_TIME.' FROM snapshot');
            do {
                $fetch->execute();
                $this->mustNameColumns($fetch, $source);
                /** @var list<array<string, string|int|float|bool|null>> $some */
                $some = $fetch->fetchAll(\PDO::FETCH_ASSOC);
                $text = implode('', array_map(self::line(...), $some));
                $bytes += strlen($text);
                if ($bytes > $this->mostBytes) {
                    throw UnreadableFile::queryFails($source, sprintf('its rows are more than %s bytes', number_format($this->mostBytes)));
                }
                if (@fwrite($file, $text) !== strlen($text)) {
                    throw NoRoom::writing();
                }
                $rows += count($some);
                $onProgress($rows, $bytes);
            } while (count($some) === self::ROWS_A_TIME);
            $database->exec('ROLLBACK');
        } catch (\PDOException $problem) {
            throw UnreadableFile::queryFails($source, self::reason($problem));
        } finally {
            fclose($file);
        }

        return $rows === 0 ? throw UnreadableFile::queryFails($source, 'it gives no row') : $bytes;
    }

    /** @param array{host: string, port: int, database: string, user: string, password: string} $facts */
    private function open(array $facts): \PDO
    {
        return new \PDO(
            sprintf('pgsql:host=%s;port=%d;dbname=%s;connect_timeout=10', $facts['host'], $facts['port'], $facts['database']),
            $facts['user'],
            $facts['password'],
            [
                \PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION,
                \PDO::ATTR_EMULATE_PREPARES => false,
                // Everything as the database writes it.
                \PDO::ATTR_STRINGIFY_FETCHES => true,
            ],
        );
    }

    private function mustNameColumns(\PDOStatement $fetch, string $source): void
    {
        $names = array_map(
            static fn(int $place): string => ($fetch->getColumnMeta($place) ?: [])['name'] ?? '',
            range(0, max(0, $fetch->columnCount() - 1)),
        );
        $twice = array_keys(array_filter(array_count_values($names), static fn(int $times): bool => $times > 1));
        if ($twice !== []) {
            throw UnreadableFile::queryFails(
                $source,
                sprintf('two of its columns are called "%s"; give one another name with AS', $twice[0]),
            );
        }
    }

    /** @param array<string, string|int|float|bool|null> $row */
    private static function line(array $row): string
    {
        $cells = array_map(
            static fn(string|int|float|bool|null $cell): string|bool|null => is_bool($cell) || $cell === null ? $cell : (string) $cell,
            $row,
        );

        return json_encode(
            $cells,
            JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_INVALID_UTF8_SUBSTITUTE | JSON_FORCE_OBJECT,
        )."\n";
    }

    /** What the database says, without the code before it and the statement behind it. */
    private static function reason(\PDOException $problem): string
    {
        $text =
            preg_replace(['/^SQLSTATE\[\w+\](?: \[\d+\])?:?\s*(?:[^:]*: \d+ )?/', '/\s*LINE \d+:.*$/s'], '', $problem->getMessage()) ?? '';

        return lcfirst(preg_replace('/^(?:ERROR|FATAL):\s*/', '', trim($text)) ?? '');
    }
}
