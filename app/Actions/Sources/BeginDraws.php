<?php

declare(strict_types=1);

namespace App\Actions\Sources;

use App\Actions\Tally\StartRun;
use App\Models\Draw;
use App\Models\DrawState;
use App\Models\Run;
use App\Models\Schedule;
use App\Policies\Act;
use App\Problems\Conflict;
use App\Queries\Sources\InPlaceQuestions;
use Carbon\CarbonImmutable;
use Illuminate\Contracts\Debug\ExceptionHandler;
use NineTally\Core\NineTallyException;
use NineTally\Core\Row\Side;

/** Looks which times of schedules have come, and where both sides have arrived: whatever becomes of it, it is begun once. */
final readonly class BeginDraws
{
    public function __construct(
        private DrawDataset $draw,
        private StartRun $startRun,
        private FailDraw $fail,
        private InPlaceQuestions $questions,
        private ExceptionHandler $problems,
    ) {}

    public function __invoke(CarbonImmutable $now): void
    {
        foreach (Schedule::query()->with(['dataset.migration', 'user'])->where('is_on', true)->get() as $schedule) {
            $due = $schedule->due($now);
            if ($due !== null) {
                $this->once($schedule, $due, $now, fn(): Draw => ($this->draw)(
                    $schedule->dataset,
                    $schedule->user,
                    $due,
                    // Where it cannot be any more, all of it is drawn.
                    $schedule->in_place && $this->questions->hindrance($schedule->dataset) === null,
                ));
            }
            $arrived = $schedule->on_arrival ? $this->arrived($schedule) : null;
            if ($arrived !== null) {
                $this->once($schedule, $arrived, $now, fn(): Draw => $this->tally($schedule, $arrived));
            }
        }
    }

    /** @param \Closure(): Draw $begin */
    private function once(Schedule $schedule, CarbonImmutable $due, CarbonImmutable $now, \Closure $begin): void
    {
        // What has come is looked at once, whatever becomes of it.
        $isOurs = Schedule::query()
            ->where(['dataset_id' => $schedule->dataset_id, 'is_on' => true])
            ->where('considered_at', '<', $due)
            ->update(['considered_at' => $now, 'updated_at' => $schedule->updated_at]) === 1;
        if (! $isOurs) {
            return;
        }
        try {
            $this->mustStillWork($schedule);
            $begin();
        } catch (\Throwable $problem) {
            $isSaid = $problem instanceof Conflict || $problem instanceof NineTallyException;
            $isSaid || $this->problems->report($problem);
            ($this->fail)(
                Draw::query()->create([
                    'dataset_id' => $schedule->dataset_id,
                    'due_at' => $due,
                    'state' => DrawState::Failed,
                    'user_id' => $schedule->user_id,
                ]),
                $isSaid ? $problem->getMessage() : 'It could not be begun. Tell whoever runs Nine Tally when it happens again.',
            );
        }
    }

    /** @return CarbonImmutable|null when the later of two deliveries came that no run has seen; null where a side has none yet */
    private function arrived(Schedule $schedule): ?CarbonImmutable
    {
        $deliveries = array_map(static fn(Side $side) => $schedule->dataset->latestDelivery($side), Side::cases());
        $last = Run::query()->where('dataset_id', $schedule->dataset_id)->latest('id')->first();
        [$source, $target] = $deliveries;
        $isNew = $source !== null && $target !== null
            && $source->id !== $last?->source_delivery_id && $target->id !== $last?->target_delivery_id;
        if (! $isNew || Draw::query()->where('dataset_id', $schedule->dataset_id)->whereIn('state', DrawState::going())->exists()) {
            return null;
        }

        return CarbonImmutable::instance(max($source->delivered_at, $target->delivered_at));
    }

    private function tally(Schedule $schedule, CarbonImmutable $arrived): Draw
    {
        $run = ($this->startRun)($schedule->dataset, $schedule->user);
        $draw = Draw::query()->create([
            'dataset_id' => $schedule->dataset_id,
            'due_at' => $arrived,
            'state' => DrawState::Tallying,
            'run_id' => $run->id,
            'user_id' => $schedule->user_id,
        ]);
        $draw->goOn(
            DrawState::Tallying,
            "Both sides have arrived: {$run->sourceDelivery->file_name} and {$run->targetDelivery->file_name}. They are being tallied.",
        );

        return $draw;
    }

    /** In whose name nothing may be delivered any more, in theirs nothing is drawn. */
    private function mustStillWork(Schedule $schedule): void
    {
        $person = $schedule->user;
        if ($person->locked_at !== null || ! Act::Work->isFor($person->roleIn($schedule->dataset->migration))) {
            throw Conflict::because(
                'not-allowed',
                "{$person->name} kept this schedule, and may not deliver here any more. Whoever may keeps it anew.",
            );
        }
    }
}
