<?php

declare(strict_types=1);

namespace App\Adapters\Queue;

use App\Adapters\Runs\RunTasks;
use Illuminate\Contracts\Config\Repository;
use Illuminate\Contracts\Queue\Job;
use Illuminate\Database\Connection;
use Illuminate\Database\Connectors\ConnectionFactory;
use Illuminate\Queue\Jobs\DatabaseJob;
use Illuminate\Queue\Jobs\RedisJob;
use Illuminate\Redis\RedisManager;

/**
 * Prolongs the reservation of a job for as long as the process that is at it lives, so that a reservation is short whatever the job
 * takes: who dies is followed within seconds, and who works is left alone.
 *
 * A child process does it, for the worker itself may wait minutes for one statement of the database, or for a printer. It ends with its
 * parent, does not count a parent that was stopped as alive, and ends a parent whose job was given to another, or that is past the time
 * that the job may take at all.
 */
final class Heartbeat
{
    /** A third of the shortest reservation, and of what counts as silence on a run. */
    private const SECONDS_BETWEEN = 3;

    private ?int $child = null;

    public function __construct(
        private readonly Repository $settings,
        private readonly ConnectionFactory $connections,
        private readonly \Closure $redis,
    ) {}

    public function begin(string $connection, Job $job): void
    {
        if (! $job instanceof DatabaseJob && ! $job instanceof RedisJob) {
            return;
        }
        $parent = getmypid();
        $child = pcntl_fork();
        if ($child > 0) {
            $this->child = $child;
        }
        if ($child === 0) {
            try {
                $this->beat((int) $parent, $connection, $job);
            } finally {
                // What the parent holds open is never closed from here: this process ends without a word, whatever went wrong in it.
                posix_kill(posix_getpid(), SIGKILL);
            }
        }
    }

    public function end(): void
    {
        if ($this->child !== null) {
            posix_kill($this->child, SIGKILL);
            pcntl_waitpid($this->child, $status);
            $this->child = null;
        }
    }

    private function beat(int $parent, string $connection, DatabaseJob|RedisJob $job): void
    {
        pcntl_async_signals(false);
        array_map(static fn(int $signal): bool => pcntl_signal($signal, SIG_DFL), [SIGTERM, SIGINT, SIGQUIT, SIGALRM, SIGUSR2, SIGCONT]);
        pcntl_alarm(0);
        $began = microtime(true);
        $database = $reservation = null;
        while (true) {
            for ($tenth = 0; $tenth < self::SECONDS_BETWEEN * 10; $tenth++) {
                usleep(100_000);
                if (posix_getppid() !== $parent) {
                    return;
                }
            }
            if ($this->isStopped($parent)) {
                continue;
            }
            try {
                $database ??= $this->database();
                $reservation ??= $this->reservation($database, $connection, $job);
                if (! $reservation->prolong() || microtime(true) - $began > ($job->timeout() ?? PHP_INT_MAX)) {
                    posix_kill($parent, SIGKILL);

                    return;
                }
                (new RunTasks($database))->isAlive((string) $job->uuid());
                (new WorkerSigns($database))->seen($parent);
            } catch (\Throwable) {
                // The database, or the queue, is gone for a while: it is tried again as long as the parent works.
                $database = $reservation = null;
            }
        }
    }

    private function isStopped(int $process): bool
    {
        return preg_match('/\) ([A-Za-z])/', (string) @file_get_contents("/proc/{$process}/stat"), $found) === 1 &&
            in_array($found[1], ['T', 't'], true);
    }

    /** A connection of its own: the one of the parent is in use there. */
    private function database(): Connection
    {
        /** @var array<string, mixed> $settings */
        $settings = $this->settings->get('database.connections.application');

        return $this->connections->make($settings, 'heartbeat');
    }

    private function reservation(Connection $database, string $connection, DatabaseJob|RedisJob $job): Reservation
    {
        if ($job instanceof DatabaseJob) {
            return new DatabaseReservation($database, $this->settings->string("queue.connections.{$connection}.table"), $job);
        }
        /** @var RedisManager $redis */
        $redis = ($this->redis)();

        return new RedisReservation(
            $redis->resolve($this->settings->string("queue.connections.{$connection}.connection")),
            'queues:'.$job->getQueue(),
            $this->settings->integer("queue.connections.{$connection}.retry_after"),
            $job,
        );
    }
}
