<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Jobs\ProfileDelivery;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\DeliveryPart;
use App\Models\RefusedRecord;
use App\Models\User;
use App\Problems\Conflict;
use Illuminate\Database\Connection;
use NineTally\Core\Row\Side;

/** Lets what was delivered for one dataset serve another of the same migration: the same bytes, entered there with the same counts. */
final readonly class UseDelivery
{
    public function __construct(private Connection $database) {}

    /** @throws Conflict when it belongs to another migration, or to this dataset */
    public function __invoke(Delivery $delivery, Dataset $dataset, Side $side, User $person): Delivery
    {
        if ($delivery->dataset->migration_id !== $dataset->migration_id || $delivery->dataset_id === $dataset->id) {
            throw Conflict::because('not-of-this-migration', 'Only a delivery of another dataset of this migration can be used here.');
        }
        $used = $this->database->transaction(function () use ($delivery, $dataset, $side, $person): Delivery {
            Dataset::query()->lockForUpdate()->findOrFail($dataset->id);
            $delivery->mustHaveContent();
            $used = Delivery::query()->create([
                ...$delivery->only([
                    'file_name', 'digest', 'bytes', 'format', 'columns', 'read_count', 'refused_count', 'delivered_count',
                    'part_label_column', 'as_of', 'rows_claimed', 'claims',
                ]),
                'dataset_id' => $dataset->id,
                'side' => $side,
                'number' => ($dataset->latestDelivery($side)->number ?? 0) + 1,
                'user_id' => $person->id,
                'delivered_at' => now(),
            ]);
            foreach ($delivery->parts as $part) {
                DeliveryPart::query()->create(
                    ['delivery_id' => $used->id] +
                        $part->only([
                            'number', 'file_name', 'part_label', 'digest', 'bytes', 'format', 'columns', 'packed_in', 'query', 'read_count',
                            'refused_count', 'delivered_count',
                        ]),
                );
            }
            $columns = ['number', 'part', 'line', 'reason', 'facts', 'raw'];
            RefusedRecord::query()->insertUsing(
                ['delivery_id', ...$columns],
                RefusedRecord::query()
                    ->where('delivery_id', $delivery->id)
                    ->selectRaw('?', [$used->id])
                    ->addSelect($columns),
            );

            return $used;
        });
        ProfileDelivery::dispatch($used->id);

        return $used;
    }
}
