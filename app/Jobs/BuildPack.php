<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Actions\Sign\MakePack;
use App\Models\PackOrder;
use App\Problems\NoRoom;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use NineTally\Core\NineTallyException;

/** Makes an evidence pack that was ordered. Run again it finds the order done, or begins anew. */
final class BuildPack implements ShouldQueue
{
    use Queueable;

    public int $tries = 3;

    public int $timeout = 3600;

    public function __construct(private readonly int $orderId) {}

    public function handle(MakePack $makePack): void
    {
        $order = PackOrder::query()->find($this->orderId);
        if ($order !== null && $order->state !== 'done') {
            $makePack($order);
        }
    }

    public function failed(?\Throwable $problem): void
    {
        PackOrder::query()
            ->whereKey($this->orderId)
            ->where('state', '!=', 'done')
            ->update([
                'state' => 'failed',
                // What we say in words of our own is for people; of all else they are told what to do.
                'problem' => $problem instanceof NineTallyException || $problem instanceof NoRoom
                    ? $problem->getMessage()
                    : 'The pack could not be made. Order it again; if that fails, ask whoever runs Nine Tally to look at '.
                        'the free disk space.',
            ]);
    }
}
