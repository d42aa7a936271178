<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Actions\Tally\RequeueExpiredWork;
use Illuminate\Console\Command;

/** Looks every few seconds for work whose worker has died, and starts it again. */
final class Watchdog extends Command
{
    protected $signature = 'nine-tally:watch {--once : Look once and end}';

    protected $description = 'Starts runs and deliveries again whose worker has died';

    private const SECONDS_BETWEEN_LOOKS = 3;

    public function handle(RequeueExpiredWork $revive): int
    {
        do {
            $revive();
            if ($this->option('once') !== true) {
                sleep(self::SECONDS_BETWEEN_LOOKS);
            }
        } while ($this->option('once') !== true);

        return self::SUCCESS;
    }
}
