<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

use App\Problems\NoRoom;
use NineTally\Core\Intake\UnreadableFile;

/**
 * The rows of a query, one at a time, from a database that has no COPY: read by a child process, which is ended when nobody waits for them
 * any more, or when the time is over.
 */
final readonly class RowsOfQuery
{
    private const PAUSE_MICROSECONDS = 100_000;

    /** How what asks for rows begins, after comments. Rights keep the rest away; this says it in words. */
    private const QUERY = '~^(?:\s|--[^\n]*(?:\n|$)|/\*.*?\*/|\()*(?:select|with|values|table)\b~is';

    /**
     * @param  string  $source  by which people know the database
     * @param  \Closure(): \PDO  $open  a connection that may only read
     * @param  \Closure(mixed): (string|null)  $text  of a value as the driver gives it
     */
    public function __construct(
        private string $source,
        private SourceAddress $address,
        private int $mostBytes,
        private \Closure $open,
        private \Closure $text,
    ) {}

    /**
     * @param  \Closure(int, int): bool  $goesOn  told rows and bytes; false ends it
     * @param  \Closure(string): void  $end  ends the query in the database, by what the child noted of it
     * @return Snapshot|null null when it was ended
     *
     * @throws UnreadableFile
     */
    public function into(string $path, string $sql, \Closure $goesOn, \Closure $end): ?Snapshot
    {
        $notes = ChildNotes::beside($path);
        $child = pcntl_fork();
        if ($child === 0) {
            try {
                $this->write($path, $sql, $notes);
            } finally {
                // What the parent holds open is never closed from here, and nothing that goes wrong here goes on as if it were the parent.
                posix_kill(posix_getpid(), SIGKILL);
            }
        }
        $began = hrtime(true);
        try {
            while (pcntl_waitpid($child, $status, WNOHANG) === 0) {
                clearstatcache(true, $path);
                $bytes = (int) @filesize($path);
                $why = match (true) {
                    $bytes > $this->mostBytes => sprintf('its rows are more than %s bytes', number_format($this->mostBytes)),
                    (hrtime(true) - $began) / 1e9 > $this->address->limits->seconds => sprintf(
                        'it took more than %s seconds, which is as long as this connection allows',
                        number_format($this->address->limits->seconds),
                    ),
                    default => null,
                };
                if ($why !== null || ! $goesOn(0, $bytes)) {
                    $end((string) $notes->said('session'));
                    posix_kill($child, SIGKILL);
                    pcntl_waitpid($child, $status);
                    @unlink($path);

                    return $why === null ? null : throw UnreadableFile::queryFails($this->source, $why);
                }
                usleep(self::PAUSE_MICROSECONDS);
            }
            $problem = $notes->said('problem');
            $rows = $notes->said('rows');
            if ($problem !== null || $rows === null || $rows === '0') {
                @unlink($path);
                throw UnreadableFile::queryFails($this->source, $problem ?? ($rows === null
                    ? 'it ended without an answer; the disk may be full'
                    : 'it gives no row'));
            }
            clearstatcache(true, $path);
            $bytes = (int) filesize($path);

            return $goesOn((int) $rows, $bytes) ? new Snapshot($bytes) : null;
        } finally {
            $notes->forget();
        }
    }

    private function write(string $path, string $sql, ChildNotes $notes): void
    {
        try {
            if (preg_match(self::QUERY, $sql) !== 1) {
                throw new \PDOException('it does not ask for rows: a query begins with SELECT or WITH');
            }
            $database = ($this->open)();
            $notes->note('session', Session::of($database, $this->address->kind));
            $query = $database->query($sql);
            if ($query === false) {
                throw new \PDOException('it gives no rows');
            }
            $columns = NamedColumns::of($query, $this->source);
            $file = @fopen($path, 'wb') ?: throw NoRoom::writing();
            $rows = 0;
            while (is_array($row = $query->fetch(\PDO::FETCH_NUM))) {
                /** @var list<scalar|null> $row */
                if ($this->address->limits->rows !== null && $rows === $this->address->limits->rows) {
                    throw new \PDOException($this->address->limits->tooManyRows());
                }
                $text = RowLine::of($columns, array_map($this->text, $row));
                if (@fwrite($file, $text) !== strlen($text)) {
                    throw NoRoom::writing();
                }
                $rows++;
            }
            fclose($file);
            $notes->note('rows', (string) $rows);
        } catch (UnreadableFile $told) {
            $notes->note('problem', preg_replace('/^.*? (?=two of its columns)/', '', $told->getMessage()) ?? '');
        } catch (\Throwable $problem) {
            $notes->note('problem', SourceProblem::plain($problem->getMessage()));
        }
    }
}
