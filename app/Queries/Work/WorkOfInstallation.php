<?php

declare(strict_types=1);

namespace App\Queries\Work;

use App\Adapters\Database\DatabaseRow;
use App\Adapters\Storage\Room;
use App\Models\Run;
use App\Models\RunState;
use Illuminate\Contracts\Queue\Queue;
use Illuminate\Database\Connection;

/**
 * What waits, what is at work, what failed and how much room there is, for whoever looks after the installation: numbers and states, and
 * nothing of what is in a migration, for administering shows none of it.
 */
final readonly class WorkOfInstallation
{
    private const SET_ASIDE = 50;

    public function __construct(private Queue $queue, private Connection $database, private Room $room, private string $folder) {}

    /**
     * @param  list<string>  $queues  those that there are
     * @return array<string, mixed>
     */
    public function __invoke(array $queues): array
    {
        return [
            'queues' => array_map($this->queue(...), $queues),
            'workers' => $this->workers(),
            'disk' => [
                'free' => $this->room->free(),
                'total' => (int) @disk_total_space($this->folder),
                'database' => DatabaseRow::all($this->database, 'SELECT pg_database_size(current_database()) AS bytes')[0]->int('bytes'),
            ],
            'runs' => Run::query()
                ->whereIn('state', RunState::goingOn())
                ->orderBy('id')
                ->get()
                ->map(static fn(Run $run): array => [
                    'id' => $run->id,
                    'phase' => $run->phase?->value,
                    'done' => $run->done,
                    'attempts' => $run->attempts,
                    'since' => ($run->started_at ?? $run->created_at)->toIso8601ZuluString(),
                ])
                ->all(),
            'setAside' => $this->setAside(),
        ];
    }

    /** @return array{name: string, waiting: int, atWork: int, oldestSeconds: int|null} */
    private function queue(string $name): array
    {
        $oldest = $this->queue->creationTimeOfOldestPendingJob($name);

        return [
            'name' => $name,
            'waiting' => $this->queue->pendingSize($name) + $this->queue->delayedSize($name),
            'atWork' => $this->queue->reservedSize($name),
            'oldestSeconds' => $oldest === null ? null : max(0, now()->getTimestamp() - $oldest),
        ];
    }

    /** @return list<array{id: string, queues: string, doing: string|null, since: string, secondsSilent: int}> */
    private function workers(): array
    {
        return array_map(
            static fn(DatabaseRow $worker): array => [
                'id' => $worker->text('id'),
                'queues' => $worker->text('queues'),
                'doing' => $worker->textOrNull('doing'),
                'since' => $worker->text('since'),
                'secondsSilent' => $worker->int('silent'),
            ],
            DatabaseRow::all(
                $this->database,
                <<<'SQL'
                SELECT id, queues, doing, to_char(since AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') AS since,
                    greatest(0, extract(epoch FROM now() - seen_at))::bigint AS silent
                FROM workers ORDER BY id
                SQL,
            ),
        );
    }

    /** @return list<array{kind: string, id: string, at: string}> what was given up, the newest first; why, whoever asked for it is told */
    private function setAside(): array
    {
        return array_map(
            static fn(DatabaseRow $one): array => ['kind' => $one->text('kind'), 'id' => $one->text('id'), 'at' => $one->text('at')],
            DatabaseRow::all(
                $this->database,
                <<<'SQL'
                SELECT kind, id, to_char(at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') AS at FROM (
                    SELECT 'tally' AS kind, id::text, finished_at AS at FROM runs r WHERE state = 'failed'
                        AND NOT EXISTS (SELECT 1 FROM runs later WHERE later.dataset_id = r.dataset_id AND later.id > r.id)
                    UNION ALL SELECT 'file', id::text, updated_at FROM workbooks WHERE state = 'failed'
                    UNION ALL SELECT 'report', id::text, created_at FROM report_orders WHERE state = 'failed'
                    UNION ALL SELECT 'answer', left(digest, 12), updated_at FROM answers WHERE state = 'failed'
                ) AS all_of_them WHERE at > now() - interval '14 days' ORDER BY at DESC LIMIT ?
                SQL,
                [self::SET_ASIDE],
            ),
        );
    }
}
