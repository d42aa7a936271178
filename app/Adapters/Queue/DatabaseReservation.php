<?php

declare(strict_types=1);

namespace App\Adapters\Queue;

use Illuminate\Database\Connection;
use Illuminate\Queue\Jobs\DatabaseJob;

/** In the table of jobs: another worker counts its attempt, so who holds a job is told by the number of attempts. */
final readonly class DatabaseReservation implements Reservation
{
    public function __construct(private Connection $database, private string $table, private DatabaseJob $job) {}

    public function prolong(): bool
    {
        return $this->database
            ->table($this->table)
            ->where(['id' => $this->job->getJobId(), 'attempts' => $this->job->attempts()])
            ->update(['reserved_at' => time()]) === 1;
    }
}
