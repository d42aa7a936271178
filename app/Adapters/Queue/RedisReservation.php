<?php

declare(strict_types=1);

namespace App\Adapters\Queue;

use Illuminate\Queue\Jobs\RedisJob;
use Illuminate\Redis\Connections\Connection;

/** In the sorted set of reserved jobs, which holds each by what it says after its last attempt was counted, with when it is free again. */
final readonly class RedisReservation implements Reservation
{
    public function __construct(private Connection $redis, private string $queue, private int $seconds, private RedisJob $job) {}

    public function prolong(): bool
    {
        $until = time() + $this->seconds;
        $job = $this->job->getReservedJob();
        // XX: what is not there is another's now, or done, and is not brought back.
        $this->redis->command('zadd', [$this->queue.':reserved', ['XX'], $until, $job]);

        return $this->redis->command('zscore', [$this->queue.':reserved', $job]) !== false;
    }
}
