<?php

declare(strict_types=1);

namespace App\Actions\Work;

use App\Actions\Deliver\DeliveryTerms;
use App\Jobs\CountKeyOfDelivery;
use App\Jobs\LookAtFile;
use App\Jobs\Patience;
use App\Jobs\PrintReport;
use App\Jobs\ProfileDelivery;
use App\Jobs\ReceiveParts;
use App\Jobs\TakeSnapshot;
use App\Models\Answer;
use App\Models\DeliveryProfile;
use App\Models\KeyCount;
use App\Models\Receipt;
use App\Models\ReceiptState;
use App\Models\ReportOrder;
use App\Models\Workbook;
use Illuminate\Contracts\Queue\Queue;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;

/**
 * What waits although no job for it is left: the queue was emptied, or whoever asked died before they had asked. It is asked for again;
 * what cannot be, because only the job knew all of it, says so to whoever waits.
 */
final readonly class LostWork
{
    private const SECONDS = 15;

    public function __construct(private Queue $queue) {}

    public function __invoke(): void
    {
        if ($this->isEmpty(Patience::Idle)) {
            $this->waiting(DeliveryProfile::query()->whereNull('columns')->whereNull('problem'))
                ->each(static fn(DeliveryProfile $profile) => ProfileDelivery::dispatch($profile->delivery_id));
        }
        if (! $this->isEmpty(Patience::Quick) || ! $this->isEmpty(Patience::Asked)) {
            return;
        }
        $this->waiting(Receipt::query()->where('state', ReceiptState::Reading->value), 'updated_at')->each($this->receive(...));
        $this->waiting(Receipt::query()->where('state', ReceiptState::Receiving->value)->whereNotNull('query'), 'updated_at')->each(
            static fn(Receipt $receipt) => TakeSnapshot::dispatch($receipt->id),
        );
        $this->waiting(
            Receipt::query()->where('state', ReceiptState::Receiving->value)->whereNull('query')->whereColumn('received_bytes', 'bytes'),
            'updated_at',
        )->each(static fn(Receipt $receipt) => LookAtFile::dispatch($receipt->id));
        $this->waiting(KeyCount::query()->where('state', 'queued'))->each(
            static fn(KeyCount $count) => CountKeyOfDelivery::dispatch($count->id),
        );
        $this->waiting(ReportOrder::query()->whereIn('state', ['queued', 'printing']))->each(
            static fn(ReportOrder $order) => PrintReport::dispatch($order->id),
        );
        $again = 'Nobody is at work on this any more: what waits for workers was lost. Ask again.';
        $this->waiting(Answer::query()->where('state', 'asked'), 'updated_at')
            ->each(static fn(Answer $answer) => $answer->update(['state' => 'failed', 'problem' => $again]));
        $this->waiting(Workbook::query()->where('state', 'asked'), 'updated_at')
            ->each(static fn(Workbook $workbook) => $workbook->update(['state' => 'failed', 'problem' => $again]));
    }

    private function isEmpty(Patience $patience): bool
    {
        return $this->queue->size($patience->value) === 0;
    }

    /** The parts of a delivery are read by one worker, from the first on. */
    private function receive(Receipt $receipt): void
    {
        $receipt->touch();
        if ($receipt->taking !== null && $receipt->taking['receipts'][0] === $receipt->id) {
            ReceiveParts::dispatch($receipt->taking['receipts'], DeliveryTerms::fromArray($receipt->taking['terms']));
        }
    }

    /**
     * @template Waiting of Model
     *
     * @param  Builder<Waiting>  $query
     * @return Builder<Waiting>
     */
    private function waiting(Builder $query, string $since = 'created_at'): Builder
    {
        return $query->where($since, '<', now()->subSeconds(self::SECONDS));
    }
}
