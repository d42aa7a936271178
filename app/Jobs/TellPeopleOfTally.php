<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Actions\Notices\TellOfTally;
use App\Models\Tally;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Told after a tally was entered; told twice it is told once. */
final class TellPeopleOfTally implements ShouldQueue
{
    use Queueable;

    public int $tries = 3;

    public int $timeout = 300;

    public function __construct(private readonly int $tallyId) {}

    public function handle(TellOfTally $tell): void
    {
        $tell(Tally::query()->findOrFail($this->tallyId));
    }
}
