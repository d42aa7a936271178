<?php

declare(strict_types=1);

namespace App\Jobs;

/** The queues, by how long whoever asked is willing to wait. Work that nobody waits for is never before work that somebody waits for. */
enum Patience: string
{
    /** Answered in seconds, while somebody looks at the page. */
    case Quick = 'quick';

    /** Somebody waits for it: an answer, a file, a delivery. */
    case Asked = 'default';

    /** Tasks of runs: seconds each, and many of them. */
    case Run = 'run';

    /** Nobody waits for it yet. */
    case Idle = 'profile';
}
