<?php

declare(strict_types=1);

namespace App\Adapters\Queue;

use Illuminate\Database\Connection;
use Illuminate\Database\QueryException;

/** Workers note that they are there, and what they are at. */
final class WorkerSigns
{
    private const SECONDS_BETWEEN = 5;

    private float $last = 0.0;

    public function __construct(private readonly Connection $database) {}

    public static function id(?int $process = null): string
    {
        return gethostname().' '.($process ?? getmypid());
    }

    /** While it waits for work. */
    public function waits(string $queues): void
    {
        if (microtime(true) - $this->last > self::SECONDS_BETWEEN) {
            $this->last = microtime(true);
            $this->note($queues, null);
        }
    }

    public function begins(string $queues, string $job): void
    {
        $this->note($queues, $job);
    }

    public function ends(): void
    {
        $this->last = 0.0;
        $this->database->table('workers')->where('id', self::id())->update(['doing' => null, 'since' => now(), 'seen_at' => now()]);
    }

    /** From beside it, while it is at something. */
    public function seen(int $process): void
    {
        $this->database->table('workers')->where('id', self::id($process))->update(['seen_at' => now()]);
    }

    public function leaves(): void
    {
        $this->database->table('workers')->where('id', self::id())->delete();
    }

    /** Those that were killed did not say so. */
    public function clearUp(int $silentSeconds): void
    {
        $this->database->table('workers')->where('seen_at', '<', now()->subSeconds($silentSeconds))->delete();
    }

    private function note(string $queues, ?string $job): void
    {
        try {
            $this->enter($queues, $job);
        } catch (QueryException) {
            // The database is away for a while: the worker meets it at its work, and waits.
        }
    }

    private function enter(string $queues, ?string $job): void
    {
        $this->database->statement(<<<'SQL'
            INSERT INTO workers (id, queues, doing, since, seen_at) VALUES (?, ?, ?, now(), now())
            ON CONFLICT (id) DO UPDATE SET queues = excluded.queues, seen_at = now(), doing = excluded.doing,
                since = CASE WHEN workers.doing IS DISTINCT FROM excluded.doing THEN now() ELSE workers.since END
            SQL, [self::id(), $queues, $job]);
    }
}
