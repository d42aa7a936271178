<?php

declare(strict_types=1);

namespace App\Adapters\Queue;

/** A worker's hold on the job that it is at, as its queue keeps it. */
interface Reservation
{
    /**
     * Holds it for the seconds of the queue's setting from now on.
     *
     * @return bool whether it was still held; false: another worker has it
     */
    public function prolong(): bool;
}
