<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Actions\Access\Trail;
use App\Adapters\Storage\Room;
use App\Jobs\WorkOnRun;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\Run;
use App\Models\RunState;
use App\Models\SigningTerms;
use App\Models\TrailAct;
use App\Models\User;
use Illuminate\Database\Connection;

/** Queues a run, unless one of the dataset goes on already: a second click finds the first. */
final readonly class QueueRun
{
    /** What a run writes aside, for each byte of both sides; of rows that all differ it is more. */
    private const ROOM_A_BYTE = 2;

    public function __construct(private Connection $database, private Room $room, private Trail $trail) {}

    /**
     * @param  \Closure(Dataset): RunTerms  $terms  looked up under the lock of the dataset
     *
     * @throws \App\Problems\NoRoom when the disk cannot take it
     * @throws \App\Problems\ContentPurged when something that it reads is gone
     */
    public function __invoke(Dataset $dataset, User $person, \Closure $terms): Run
    {
        $run = $this->database->transaction(function () use ($dataset, $person, $terms): Run {
            $dataset = Dataset::query()->lockForUpdate()->findOrFail($dataset->id);
            $goingOn = $dataset->runs()->whereIn('state', RunState::goingOn())->first();
            if ($goingOn !== null) {
                return $goingOn;
            }
            $of = $terms($dataset);
            foreach ($this->read($of) as $delivery) {
                $delivery->mustHaveContent();
            }
            $bytes = (int) Delivery::query()->whereKey([$of->sourceDelivery, $of->targetDelivery])->sum('bytes');
            $this->room->mustHave(self::ROOM_A_BYTE * $bytes);

            $this->trail->note(
                TrailAct::BeganTally,
                $person,
                "{$dataset->name}: plan {$of->planVersion->number}",
                $dataset->migration,
            );

            return Run::query()->create([
                'dataset_id' => $dataset->id,
                'plan_version_id' => $of->planVersion->id,
                'source_delivery_id' => $of->sourceDelivery,
                'target_delivery_id' => $of->targetDelivery,
                'state' => RunState::Queued,
                'done' => 0.0,
                'figures' => [],
                'parameters' => (object) $of->inputs->parameters,
                'reference_deliveries' => (object) $of->inputs->references,
                'record_deliveries' => (object) $of->inputs->records,
                'matched_tallies' => (object) $of->inputs->matched,
                'attempts' => 0,
                'name' => $of->name,
                'signing_terms_id' => SigningTerms::query()->where('migration_id', $dataset->migration_id)->max('id'),
                'user_id' => $person->id,
            ]);
        });
        if ($run->wasRecentlyCreated) {
            WorkOnRun::dispatch($run->id);
        }

        return $run;
    }

    /** @return \Illuminate\Database\Eloquent\Collection<int, Delivery> all that the run reads */
    private function read(RunTerms $of): \Illuminate\Database\Eloquent\Collection
    {
        $records = array_merge(...array_map(array_values(...), array_values($of->inputs->records)));

        return Delivery::query()
            ->whereKey([$of->sourceDelivery, $of->targetDelivery, ...array_values($of->inputs->references), ...$records])
            ->whereHas('purge')
            ->with('dataset')
            ->get();
    }
}
