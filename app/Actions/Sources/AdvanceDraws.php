<?php

declare(strict_types=1);

namespace App\Actions\Sources;

use App\Actions\Deliver\DeliveryTerms;
use App\Actions\Deliver\DiscardReceipt;
use App\Actions\Deliver\TakeDelivery;
use App\Actions\Tally\StartRun;
use App\Models\DeliveryPart;
use App\Models\Draw;
use App\Models\DrawState;
use App\Models\Receipt;
use App\Models\ReceiptState;
use App\Models\RunState;
use App\Models\Schedule;
use App\Models\StandingCount;
use App\Models\Tally;
use App\Problems\Conflict;
use App\Queries\Sources\DrawOrder;
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
        private BeginDraws $begin,
        private TakeDelivery $take,
        private StartRun $startRun,
        private DiscardReceipt $discard,
        private FailDraw $fail,
        private DrawOrder $order,
        private ExceptionHandler $problems,
    ) {}

    public function __invoke(): void
    {
        ($this->begin)(CarbonImmutable::now());
        foreach (Draw::query()->with(['dataset.migration', 'user'])->whereIn('state', DrawState::going())->orderBy('id')->get() as $draw) {
            try {
                $this->advance($draw);
            } catch (Conflict|NineTallyException $problem) {
                ($this->fail)($draw, $problem->getMessage());
            } catch (\Throwable $problem) {
                // Whatever it is, the next look tries again.
                $this->problems->report($problem);
            }
        }
    }

    private function advance(Draw $draw): void
    {
        match ($draw->state) {
            // A worker asks, and says when it is done.
            DrawState::Asking => null,
            DrawState::Drawing => $this->takeRows($draw),
            DrawState::Reading, DrawState::Waiting => $this->tally($draw),
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
        $all = array_merge(...array_values($receipts));
        foreach ($all as $receipt) {
            if ($draw->due_at !== null && isset($receipt->query['isNothingNew'])) {
                $this->endWithout($draw, $all, "{$receipt->problem}: nothing was delivered.");

                return;
            }
            if ($receipt->state === ReceiptState::Refused) {
                throw Conflict::because('refused', "Nothing was delivered. {$receipt->problem}");
            }
            if ($receipt->state === ReceiptState::Receiving) {
                return;
            }
        }
        if ($this->isNothingNew($draw, $receipts)) {
            $this->endWithout($draw, $all, 'Nothing has changed since the last deliveries, byte for byte: nothing was delivered.');

            return;
        }
        $asked = new AskedMoments($receipts);
        $most = Schedule::query()->find($draw->dataset_id)?->most_apart;
        if ($draw->due_at !== null && $most !== null && $asked->apart() > $most) {
            foreach ($all as $receipt) {
                ($this->discard)($receipt);
            }
            throw Conflict::because(
                'too-far-apart',
                'Nothing was delivered: both sides were asked '.Counted::of((int) $asked->apart(), 'second').' apart, and '.$most.
                    ' is the most that its schedule allows.',
            );
        }
        foreach ($receipts as $side => $parts) {
            $labels = array_column($draw->receipts[$side === 'source' ? 'source' : 'target'] ?? [], 'label', 'receipt');
            $last = $draw->dataset->latestDelivery(Side::from($side));
            ($this->take)(
                $draw->dataset,
                Side::from($side),
                array_map(static fn(Receipt $receipt): string => $receipt->id, $parts),
                new DeliveryTerms($labels, $last?->part_label_column),
            );
        }
        $written = array_map(self::written(...), array_keys($receipts), $receipts);
        $draw->goOn(DrawState::Reading, 'Written down: '.implode(', ', $written).'. '.$asked->inWords());
    }

    /** @param non-empty-list<Receipt> $parts files have rows that nobody has counted yet */
    private static function written(string $side, array $parts): string
    {
        $rows = array_sum(array_map(static fn(Receipt $receipt): int => $receipt->records_read, $parts));

        return "the {$side} ".($rows === 0 ? 'in '.Counted::of(count($parts), 'file') : Counted::of($rows, 'row'));
    }

    /** @param list<Receipt> $receipts */
    private function endWithout(Draw $draw, array $receipts, string $said): void
    {
        foreach ($receipts as $receipt) {
            ($this->discard)($receipt);
        }
        $draw->goOn(DrawState::Done, $said);
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
        if ($this->order->isLookedUpAlone($draw->dataset)) {
            $draw->goOn(DrawState::Done, 'Delivered. Others look it up; it has no key, so it is not tallied itself.');

            return;
        }
        $before = $this->order->before($draw->dataset);
        if ($before !== []) {
            $draw->state === DrawState::Waiting ||
                $draw->goOn(
                    DrawState::Waiting,
                    'Delivered. First comes '.implode(', ', $before).', which it takes rows or numbers from.',
                );

            return;
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
        $open = $tally === null ? 0 : StandingCount::openOf($tally->standingCounts);
        $draw->goOn(
            DrawState::Done,
            $tally === null
                ? 'Tallied.'
                : "Tally {$tally->number}: ".($open === 0 ? 'nothing is open.' : Counted::of($open, 'finding').' open.'),
        );
    }
}
