<?php

declare(strict_types=1);

namespace App\Adapters\Runs;

use App\Adapters\Database\DatabaseRow;
use App\Models\Run;
use App\Models\RunPhase;
use App\Models\RunState;
use Illuminate\Database\Connection;
use NineTally\Core\Tally\TallyCancelled;

/**
 * Which tasks of a run there are, who is at work on them, and what of them is done: the one truth about a run, whatever a queue lost or
 * gave twice.
 */
final readonly class RunTasks
{
    /** A worker gives a sign every few seconds, also while it waits for the database. One that gave none for so long is as good as dead. */
    private const SILENT_SECONDS = 10;

    private const SINCE = ' < now() - make_interval(secs => '.self::SILENT_SECONDS.')';

    /** Nobody who was asked has been seen. */
    private const IS_SILENT = "coalesce(greatest(queued_at, seen_at), 'epoch')".self::SINCE;

    /** Whoever took it has not been seen; somebody else may just have been asked. */
    private const IS_LEFT = "coalesce(seen_at, 'epoch')".self::SINCE;

    public function __construct(private Connection $database) {}

    /** @param list<string> $names; those that are there already stay as they are */
    public function open(Run $run, RunPhase $phase, array $names): void
    {
        $this->database->statement(<<<'SQL'
            INSERT INTO run_tasks (run_id, name, phase, place)
            SELECT ?, name, ?, place FROM unnest(?::text[]) WITH ORDINALITY AS tasks (name, place) ON CONFLICT DO NOTHING
            SQL, [$run->id, $phase->value, '{'.implode(',', $names).'}']);
    }

    /** @return bool whether nobody was asked for the task before; from here on somebody was */
    public function askFor(Run $run, RunPhase $phase, string $name): bool
    {
        return $this->database->table('run_tasks')->insertOrIgnore([
            'run_id' => $run->id,
            'name' => $name,
            'phase' => $phase->value,
            'place' => 1,
            'queued_at' => now(),
        ]) === 1;
    }

    /** @return bool whether tasks of the phase are not done */
    public function hasMissing(Run $run, RunPhase $phase): bool
    {
        return $this->database
            ->table('run_tasks')
            ->where(['run_id' => $run->id, 'phase' => $phase->value])
            ->whereNull('done_at')
            ->exists();
    }

    /**
     * Tasks of a phase that somebody is to be asked for now; from here on they have been asked for.
     *
     * @param  int  $window  how many may wait or be at work at once
     * @param  bool  $takesSilent  also those that somebody was asked for, and of which there has been no sign for long
     * @return list<string>
     */
    public function ask(Run $run, RunPhase $phase, int $window, bool $takesSilent): array
    {
        $isSilent = self::IS_SILENT;
        $rows = DatabaseRow::all(
            $this->database,
            <<<SQL
            WITH missing AS (
                SELECT name, place, queued_at IS NULL OR (? AND {$isSilent}) AS is_free FROM run_tasks
                WHERE run_id = ? AND phase = ? AND done_at IS NULL
            ), asked AS (
                SELECT name FROM missing WHERE is_free ORDER BY place
                LIMIT greatest(0, ? - (SELECT count(*) FROM missing WHERE NOT is_free))
            )
            UPDATE run_tasks t SET queued_at = now() FROM asked WHERE t.run_id = ? AND t.name = asked.name RETURNING t.name, t.place
            SQL,
            [$takesSilent, $run->id, $phase->value, $window, $run->id],
        );
        usort($rows, static fn(DatabaseRow $one, DatabaseRow $other): int => $one->int('place') <=> $other->int('place'));

        return array_map(static fn(DatabaseRow $row): string => $row->text('name'), $rows);
    }

    /**
     * Takes a task, unless it is done, its run is over, or another worker is at it.
     *
     * @param  string  $worker  whoever takes it, for its signs of life
     * @return RunPhase|null null when it is not to be done
     */
    public function take(int $runId, string $task, string $worker): ?RunPhase
    {
        $isLeft = self::IS_LEFT;
        $taken = $this->database->selectOne(
            <<<SQL
            WITH taken AS (
                UPDATE run_tasks SET worker = ?, seen_at = now(), attempts = run_tasks.attempts + 1
                WHERE run_id = ? AND name = ? AND done_at IS NULL AND (worker IS NULL OR worker = ? OR {$isLeft})
                    AND EXISTS (SELECT 1 FROM runs WHERE id = run_id AND state NOT IN ('done', 'failed', 'cancelled'))
                RETURNING phase, attempts
            ), attempted AS (
                UPDATE runs SET attempts = greatest(runs.attempts, taken.attempts), started_at = coalesce(started_at, now()) FROM taken
                WHERE id = ?
            )
            SELECT phase FROM taken
            SQL,
            [$worker, $runId, $task, $worker, $runId],
        );

        return $taken instanceof \stdClass ? RunPhase::from(DatabaseRow::of($taken)->text('phase')) : null;
    }

    /** A sign of life of whoever is at a task: one that is held within a transaction needs none. */
    public function isAlive(string $worker): void
    {
        $this->database->update(<<<'SQL'
            UPDATE run_tasks t SET seen_at = now() FROM (
                SELECT run_id, name FROM run_tasks WHERE worker = ? AND done_at IS NULL FOR UPDATE SKIP LOCKED
            ) own WHERE t.run_id = own.run_id AND t.name = own.name
            SQL, [$worker]);
    }

    /** Whoever failed leaves the task to the next. */
    public function release(int $runId, string $task, string $worker): void
    {
        $this->database->update(
            'UPDATE run_tasks SET worker = NULL, seen_at = NULL, queued_at = now() WHERE run_id = ? AND name = ? AND worker = ?',
            [$runId, $task, $worker],
        );
    }

    /**
     * Tells how far a task is, and with it the run.
     *
     * @param  float  $share  of the task, from 0 to 1
     *
     * @throws TallyCancelled when nobody wants the run any more
     */
    public function sign(int $runId, string $task, RunPhase $phase, float $share, int $records): void
    {
        $this->database->update('UPDATE run_tasks SET seen_at = now(), share = ?, records = ? WHERE run_id = ? AND name = ?', [
            $share,
            $records,
            $runId,
            $task,
        ]);
        $this->show($runId, $phase) || throw TallyCancelled::byPerson();
    }

    /** @param string|null $digest of what it left */
    public function done(int $runId, string $task, int $records, ?string $digest): void
    {
        $this->database->update(
            'UPDATE run_tasks SET done_at = now(), share = 1, records = greatest(records, ?), digest = ? WHERE run_id = ? AND name = ? '.
                'AND done_at IS NULL',
            [$records, $digest, $runId, $task],
        );
    }

    /** Locks a task until the transaction ends; false when another has done it. */
    public function holdUndone(int $runId, string $task): bool
    {
        return $this->database
            ->table('run_tasks')
            ->where(['run_id' => $runId, 'name' => $task])
            ->whereNull('done_at')
            ->lockForUpdate()
            ->exists();
    }

    /** @return array<string, string|null> by task of the phase: the digest of what it left */
    public function digests(Run $run, RunPhase $phase): array
    {
        /** @var array<string, string|null> $digests */
        $digests = $this->database
            ->table('run_tasks')
            ->where(['run_id' => $run->id, 'phase' => $phase->value])
            ->pluck('digest', 'name')
            ->all();

        return $digests;
    }

    /** @param list<string> $names tasks whose results are not there, or not whole, or are of no use */
    public function forget(Run $run, array $names): void
    {
        $this->database->table('run_tasks')->where('run_id', $run->id)->whereIn('name', $names)->delete();
    }

    /** Of runs that are over nobody asks which tasks they had. */
    public function clearUp(): void
    {
        $this->database->delete(
            "DELETE FROM run_tasks USING runs WHERE runs.id = run_id AND runs.state IN ('done', 'failed', 'cancelled')",
        );
    }

    /** How many jobs a queue should hold for the runs that go on: one for each task that was asked for and is not done. */
    public function asked(): int
    {
        return $this->database
            ->table('run_tasks')
            ->join('runs', 'runs.id', '=', 'run_id')
            ->whereIn('state', RunState::goingOn())
            ->whereNotNull('queued_at')
            ->whereNull('done_at')
            ->count();
    }

    /** @return list<int> runs that go on, and of which there has been no sign for long */
    public function silentRuns(): array
    {
        $isSilent = self::IS_SILENT;

        return array_map(
            static fn(DatabaseRow $run): int => $run->int('id'),
            DatabaseRow::all(
                $this->database,
                <<<SQL
                SELECT id FROM runs WHERE state NOT IN ('done', 'failed', 'cancelled')
                    AND created_at < now() - make_interval(secs => ?)
                    AND NOT EXISTS (SELECT 1 FROM run_tasks WHERE run_id = runs.id AND NOT ({$isSilent}))
                ORDER BY id
                SQL,
                [self::SILENT_SECONDS],
            ),
        );
    }

    /**
     * Brings the run up to what its tasks say; not within a transaction, for others do it too.
     *
     * @return bool whether the run goes on
     */
    public function show(int $runId, RunPhase $phase): bool
    {
        return $this->database->update(
            <<<'SQL'
            UPDATE runs SET done = greatest(done, least(0.99, ? + ? * share)), figures = (runs.figures::jsonb || f.figures)::json
            FROM (
                SELECT avg(share) AS share, CASE WHEN ? = 'scan' THEN jsonb_build_object(
                    'sourceRows', coalesce(sum(records) FILTER (WHERE name LIKE 'source%'), 0)
                        + coalesce(sum(records / 2) FILTER (WHERE name LIKE 'both%'), 0),
                    'targetRows', coalesce(sum(records) FILTER (WHERE name LIKE 'target%'), 0)
                        + coalesce(sum(records / 2) FILTER (WHERE name LIKE 'both%'), 0))
                WHEN ? = 'match' THEN jsonb_build_object('slicesMatched', count(done_at), 'slices', count(*))
                ELSE '{}'::jsonb END AS figures
                FROM run_tasks WHERE run_id = ? AND phase = ?
            ) f
            WHERE id = ? AND state NOT IN ('done', 'failed', 'cancelled')
            SQL,
            [$phase->shareBefore(), $phase->share(), $phase->value, $phase->value, $runId, $phase->value, $runId],
        ) === 1;
    }
}
