<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Actions\Tally\StartRun;
use App\Models\Dataset;
use App\Models\Run;
use App\Models\RunState;
use App\Models\User;
use App\Problems\Conflict;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use NineTally\Core\NineTallyException;

/** Starts runs of datasets that take numbers from what others match, one after the other, once the runs of those have ended. */
final class StartRunInOrder implements ShouldQueue
{
    use Queueable;

    private const SECONDS_BETWEEN_LOOKS = 3;

    private const HOURS = 12;

    /**
     * @param  non-empty-list<int>  $datasets  in their order
     * @param  list<int>  $after  runs that have to end before
     */
    public function __construct(
        private readonly array $datasets,
        private readonly int $person,
        private readonly array $after,
        private readonly ?string $name,
    ) {}

    public function retryUntil(): \DateTimeInterface
    {
        return now()->addHours(self::HOURS);
    }

    public function handle(StartRun $startRun): void
    {
        if (Run::query()->whereKey($this->after)->whereIn('state', RunState::goingOn())->exists()) {
            $this->release(self::SECONDS_BETWEEN_LOOKS);

            return;
        }
        $after = [];
        try {
            $dataset = Dataset::query()->findOrFail($this->datasets[0]);
            $after = [$startRun($dataset, User::query()->findOrFail($this->person), name: $this->name)->id];
        } catch (Conflict|NineTallyException) {
            // What keeps it from being tallied stands at its station.
        }
        $others = array_slice($this->datasets, 1);
        if ($others !== []) {
            self::dispatch($others, $this->person, $after, $this->name);
        }
    }
}
