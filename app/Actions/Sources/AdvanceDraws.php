<?php

declare(strict_types=1);

namespace App\Actions\Sources;

use App\Actions\Deliver\DeliveryTerms;
use App\Actions\Deliver\DiscardReceipt;
use App\Actions\Deliver\TakeDelivery;
use App\Actions\Notices\GiveNotice;
use App\Actions\Tally\StartRun;
use App\Models\DeliveryPart;
use App\Models\Draw;
use App\Models\DrawState;
use App\Models\NoticeKind;
use App\Models\Receipt;
use App\Models\ReceiptState;
use App\Models\RunState;
use App\Models\Schedule;
use App\Models\Tally;
use App\Policies\Act;
use App\Problems\Conflict;
use Carbon\CarbonImmutable;
use Illuminate\Contracts\Debug\ExceptionHandler;
use NineTally\Core\NineTallyException;
use NineTally\Core\Row\Counted;
use NineTally\Core\Row\Side;

/**
 * Looks every few seconds which times of schedules have come, and takes what is being drawn one step further: rows that are written down
 * become deliveries, both sides together, then the dataset is tallied. Each step is seen from what stands in the database, so whatever is
 * killed in between goes on with the next look.
 */
final readonly class AdvanceDraws
{
    public function __construct(
        private DrawDataset $draw,
        private TakeDelivery $take,
        private StartRun $startRun,
        private DiscardReceipt $discard,
        private GiveNotice $notice,
        private ExceptionHandler $problems,
    ) {}

    public function __invoke(): void
    {
        $this->begin(CarbonImmutable::now());
        foreach (Draw::query()->with(['dataset.migration', 'user'])->whereIn('state', DrawState::going())->orderBy('id')->get() as $draw) {
            try {
                $this->advance($draw);
            } catch (Conflict|NineTallyException $problem) {
                $this->fail($draw, $problem->getMessage());
            } catch (\Throwable $problem) {
                // Whatever it is, the next look tries again.
                $this->problems->report($problem);
            }
        }
    }

    private function begin(CarbonImmutable $now): void
    {
        foreach (Schedule::query()->with(['dataset.migration', 'user'])->where('is_on', true)->get() as $schedule) {
            $due = $schedule->due($now);
            if ($due === null) {
                continue;
            }
            // What has come is looked at once, whatever becomes of it.
            $isOurs = Schedule::query()
                ->where(['dataset_id' => $schedule->dataset_id, 'is_on' => true])
                ->where('considered_at', '<', $due)
                ->update(['considered_at' => $now, 'updated_at' => $schedule->updated_at]) === 1;
            if (! $isOurs) {
                continue;
            }
            try {
                $this->mustStillWork($schedule);
                ($this->draw)($schedule->dataset, $schedule->user, $due);
            } catch (\Throwable $problem) {
                $isSaid = $problem instanceof Conflict || $problem instanceof NineTallyException;
                $isSaid || $this->problems->report($problem);
                $this->fail(
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

    /** Why stands in its log; those who are told hear that it did not come, and where to read why. */
    private function fail(Draw $draw, string $why): void
    {
        $draw->goOn(DrawState::Failed, $why);
        $when = $draw->due_at === null ? 'as it was asked for' : "at {$draw->due_at->toIso8601ZuluString()}, its time";
        ($this->notice)(
            NoticeKind::DrawFailed,
            $draw->dataset,
            null,
            "{$draw->dataset->name} was not drawn and tallied {$when}. Why stands in Deliver, under Draw by schedule.",
            'deliver',
        );
    }

    private function advance(Draw $draw): void
    {
        match ($draw->state) {
            DrawState::Drawing => $this->takeRows($draw),
            DrawState::Reading => $this->tally($draw),
            default => $this->end($draw),
        };
    }

    /** @return array<string, non-empty-list<Receipt>> by side; of a feed in several pages these */
    private function receipts(Draw $draw): array
    {
        $find = static fn(string $id): Receipt => Receipt::query()->find($id)
            ?? throw Conflict::because('discarded', 'What was drawn was discarded before it could be taken.');
        $receipts = [];
        foreach ($draw->receipts as $side => $parts) {
            foreach ($parts as ['receipt' => $id]) {
                $receipt = $find($id);
                foreach (
                    $receipt->state === ReceiptState::Unpacked ? array_map($find, $receipt->unpacked_into ?? []) : [$receipt]
                    as $part
                ) {
                    $receipts[$side][] = $part;
                }
            }
        }

        return $receipts;
    }

    private function takeRows(Draw $draw): void
    {
        $receipts = $this->receipts($draw);
        foreach (array_merge(...array_values($receipts)) as $receipt) {
            if ($receipt->state === ReceiptState::Refused) {
                throw Conflict::because('refused', "Nothing was delivered. {$receipt->problem}");
            }
            if ($receipt->state === ReceiptState::Receiving) {
                return;
            }
        }
        if ($this->isNothingNew($draw, $receipts)) {
            foreach (array_merge(...array_values($receipts)) as $receipt) {
                ($this->discard)($receipt);
            }
            $draw->goOn(DrawState::Done, 'Nothing has changed since the last deliveries, byte for byte: nothing was delivered.');

            return;
        }
        $began = [];
        foreach ($receipts as $side => $parts) {
            $labels = array_column($draw->receipts[$side === 'source' ? 'source' : 'target'] ?? [], 'label', 'receipt');
            $last = $draw->dataset->latestDelivery(Side::from($side));
            $began[$side] = CarbonImmutable::instance($parts[0]->created_at);
            ($this->take)(
                $draw->dataset,
                Side::from($side),
                array_map(static fn(Receipt $receipt): string => $receipt->id, $parts),
                new DeliveryTerms($labels, $last?->part_label_column, $began[$side]->toIso8601ZuluString()),
            );
        }
        $rows = array_map(
            static fn(string $side, array $parts): string => "the {$side} "
                .Counted::of(array_sum(array_map(static fn(Receipt $receipt): int => $receipt->records_read, $parts)), 'row'),
            array_keys($receipts),
            $receipts,
        );
        $apart = count($began) === 2 ? (int) abs($began['source']->diffInSeconds($began['target'])) : null;
        $draw->goOn(
            DrawState::Reading,
            'Written down: '.implode(', ', $rows).'. '.($apart === null
                ? 'The other side stays as it was delivered.'
                : 'Both sides were asked '.($apart === 0 ? 'in the same second.' : Counted::of($apart, 'second').' apart.')),
        );
    }

    /**
     * What was delivered before, byte for byte, is not delivered again by a schedule; who asks by hand wants a tally.
     *
     * @param  array<string, non-empty-list<Receipt>>  $receipts
     */
    private function isNothingNew(Draw $draw, array $receipts): bool
    {
        $isAllHere = array_filter(
            array_merge(...array_values($receipts)),
            static fn(Receipt $receipt): bool => $receipt->state !== ReceiptState::Received,
        ) === [];
        if ($draw->due_at === null || ! $isAllHere) {
            return false;
        }
        foreach ($receipts as $side => $parts) {
            $drawn = array_map(static fn(Receipt $receipt): ?string => $receipt->digest, $parts);
            $known = $draw->dataset
                ->latestDelivery(Side::from($side))
                ?->parts()
                ->get()
                ->map(static fn(DeliveryPart $part): string => $part->digest)
                ->all();
            if ($drawn !== array_values($known ?? [])) {
                return false;
            }
        }

        return true;
    }

    private function tally(Draw $draw): void
    {
        foreach (array_merge(...array_values($this->receipts($draw))) as $receipt) {
            if ($receipt->state === ReceiptState::Refused) {
                throw Conflict::because('refused', "What was drawn is no delivery. {$receipt->problem}");
            }
            if ($receipt->state !== ReceiptState::Delivered) {
                return;
            }
        }
        $run = ($this->startRun)($draw->dataset, $draw->user);
        $draw->update(['run_id' => $run->id]);
        $draw->goOn(DrawState::Tallying, 'Delivered, and being tallied.');
    }

    private function end(Draw $draw): void
    {
        $run = $draw->run;
        if ($run === null || ! $run->state->isOver()) {
            return;
        }
        if ($run->state !== RunState::Done) {
            throw Conflict::because('no-tally', $run->state === RunState::Cancelled
                ? 'The tally was cancelled.'
                : 'The tally failed: '.($run->problem ?? 'see the station Tally'));
        }
        $tally = Tally::query()->where('run_id', $run->id)->first();
        $open = $tally === null ? 0 : (int) $tally->standingCounts()->get()->sum(static fn($count): int => $count->open());
        $draw->goOn(
            DrawState::Done,
            $tally === null
                ? 'Tallied.'
                : "Tally {$tally->number}: ".($open === 0 ? 'nothing is open.' : Counted::of($open, 'finding').' open.'),
        );
    }
}
