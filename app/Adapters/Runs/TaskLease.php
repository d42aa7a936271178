<?php

declare(strict_types=1);

namespace App\Adapters\Runs;

use App\Adapters\Database\DatabaseRow;
use App\Adapters\Database\Interval;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;

/**
 * A worker's hold on one task of a run. A task whose worker fell silent is free again; that the silent one may still be at
 * work does no harm, for a task done twice leaves the same bytes.
 */
final class TaskLease
{
    private const SECONDS_BETWEEN_SIGNS = 1.0;

    private function __construct(
        private readonly Connection $database,
        private readonly int $runId,
        public readonly string $name,
        private readonly string $worker,
        private readonly int $seconds,
        private readonly Interval $interval,
    ) {}

    /** @return self|null null when no task of the run is free, or nobody wants its result any more */
    public static function take(
        Connection $database,
        int $runId,
        int $seconds,
        float $secondsBetweenSigns = self::SECONDS_BETWEEN_SIGNS,
    ): ?self {
        $worker = (string) Str::uuid();
        // Materialized: as a mere condition of the update it may be looked up once more for each row, and then more than one task is taken.
        $taken = $database->selectOne(<<<'SQL'
            WITH free AS MATERIALIZED (
                SELECT p.run_id, p.name FROM run_tasks p JOIN runs r ON r.id = p.run_id
                WHERE p.run_id = ? AND p.done_at IS NULL AND (p.lease_expires_at IS NULL OR p.lease_expires_at < now())
                  AND r.state IN ('reading', 'matching') AND r.cancel_requested_at IS NULL
                ORDER BY p.name LIMIT 1 FOR UPDATE OF p SKIP LOCKED
            )
            UPDATE run_tasks t SET worker = ?, lease_expires_at = now() + make_interval(secs => ?)
            FROM free WHERE t.run_id = free.run_id AND t.name = free.name
            RETURNING t.name
            SQL, [$runId, $worker, $seconds]);

        return $taken instanceof \stdClass
            ? new self($database, $runId, DatabaseRow::of($taken)->text('name'), $worker, $seconds, new Interval($secondsBetweenSigns))
            : null;
    }

    public function progress(int $bytes, int $records): void
    {
        if ($this->interval->isOver()) {
            $this->database->update(
                'UPDATE run_tasks SET bytes_read = ?, records_read = ?, lease_expires_at = now() + make_interval(secs => ?) '.
                    'WHERE run_id = ? AND name = ? AND worker = ?',
                [$bytes, $records, $this->seconds, $this->runId, $this->name, $this->worker],
            );
        }
    }

    /** Somebody else may try at once. */
    public function release(): void
    {
        $this->database->update('UPDATE run_tasks SET lease_expires_at = NULL WHERE run_id = ? AND name = ? AND worker = ?', [
            $this->runId,
            $this->name,
            $this->worker,
        ]);
    }

    public function done(int $bytes, int $records): void
    {
        $this->database->update('UPDATE run_tasks SET bytes_read = ?, records_read = ?, done_at = now() WHERE run_id = ? AND name = ?', [
            $bytes,
            $records,
            $this->runId,
            $this->name,
        ]);
    }
}
