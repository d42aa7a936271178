<?php

declare(strict_types=1);

namespace App\Adapters\Database;

/** Tells when it is time again to say how far long work is: every step of it asks, and few are told yes. */
final class Interval
{
    private float $last;

    public function __construct(private readonly float $seconds)
    {
        $this->last = microtime(true);
    }

    /** If it is over, the next one begins. */
    public function isOver(): bool
    {
        $now = microtime(true);
        if ($now - $this->last < $this->seconds) {
            return false;
        }
        $this->last = $now;

        return true;
    }
}
