<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

/**
 * The rows of a query in a file, as COPY writes them: read by a child process, so that one row is held and not two thousand, and watched
 * from here on a connection of its own, which ends the query in the database too when nobody waits for it any more.
 */
final readonly class CopyOfQuery
{
    private const PAUSE_MICROSECONDS = 100_000;

    /** What a query has after it was asked to end, before its connection is. */
    private const SECONDS_TO_END = 2;

    /** @param \Closure(): \PDO $open a connection that may only read, with its limits set */
    public function __construct(private \Closure $open) {}

    /**
     * @param  string  $sql  one statement that gives rows: whoever calls has had it prepared
     * @param  \Closure(int): bool  $goesOn  told the bytes so far; false ends it
     * @return bool false when it was ended
     *
     * @throws \PDOException with what the database says, when it fails
     */
    public function into(string $path, string $sql, \Closure $goesOn): bool
    {
        $notes = ChildNotes::beside($path);
        $child = pcntl_fork();
        if ($child === 0) {
            try {
                $this->copy($path, $sql, $notes);
            } finally {
                // What the parent holds open is never closed from here, and nothing that goes wrong here goes on as if it were the parent.
                posix_kill(posix_getpid(), SIGKILL);
            }
        }
        try {
            while (pcntl_waitpid($child, $status, WNOHANG) === 0) {
                clearstatcache(true, $path);
                if (! $goesOn((int) @filesize($path))) {
                    $this->end($child, $notes);

                    return false;
                }
                usleep(self::PAUSE_MICROSECONDS);
            }

            $problem =
                $notes->said('problem') ??
                ($notes->said('done') === null ? 'it ended without an answer; the disk may be full' : null);

            return $problem === null ? true : throw new \PDOException($problem);
        } finally {
            $notes->forget();
        }
    }

    private function copy(string $path, string $sql, ChildNotes $notes): void
    {
        try {
            $database = ($this->open)();
            $found = $database->query('SELECT pg_backend_pid()');
            $notes->note('backend', (string) ($found === false ? 0 : (int) $found->fetchColumn()));
            $database->exec('BEGIN TRANSACTION ISOLATION LEVEL REPEATABLE READ READ ONLY');
            // Of what is prepared there is one statement, and what stands in brackets is a query: it can be nothing else here either.
            $isCopied = $database->pgsqlCopyToFile("({$sql}\n)", $path, "\t", '\\\\N');
            $notes->note($isCopied ? 'done' : 'problem', $isCopied ? '' : 'its rows could not be written; the disk may be full');
        } catch (\Throwable $problem) {
            $notes->note('problem', $problem->getMessage());
        }
    }

    /** First the query is asked to end, then its connection is ended, then the child. */
    private function end(int $child, ChildNotes $notes): void
    {
        $backend = (int) $notes->said('backend');
        try {
            $watcher = ($this->open)();
            $watcher->exec("SELECT pg_cancel_backend({$backend})");
            for ($waited = 0; $waited < self::SECONDS_TO_END * 10; $waited++) {
                if (pcntl_waitpid($child, $status, WNOHANG) !== 0) {
                    return;
                }
                usleep(self::PAUSE_MICROSECONDS);
            }
            $watcher->exec("SELECT pg_terminate_backend({$backend})");
        } catch (\PDOException) {
            // The database is away, and the query with it.
        }
        posix_kill($child, SIGKILL);
        pcntl_waitpid($child, $status);
    }
}
