<?php

declare(strict_types=1);

namespace App\Actions\Match;

use App\Adapters\Deliveries\DeliverySample;
use App\Adapters\Deliveries\PreparationInputs;
use App\Adapters\Deliveries\PreparedSides;
use App\Jobs\CountKeyOfDelivery;
use App\Models\Delivery;
use App\Models\KeyCount;
use NineTally\Core\Advice\KeyUniqueness;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\Row;

/** How well columns tell the rows of a delivery apart: on a sample at once, on the whole delivery as soon as a worker has counted it. */
final readonly class CountKey
{
    public function __construct(private PreparedSides $sides, private DeliverySample $deliverySample, private int $sampleRows) {}

    /**
     * @param  non-empty-list<string>  $columns
     * @return array{rows: int, uniqueRows: int, repeatedRows: int, unkeyedRows: int, isWhole: bool}
     */
    public function __invoke(Delivery $delivery, array $columns, SideRules $rules): array
    {
        $count = KeyCount::query()->createOrFirst(
            ['delivery_id' => $delivery->id, 'columns_digest' => KeyCount::digestOf($columns, $rules)],
            ['columns' => $columns, 'state' => 'queued'],
        );
        if ($count->state === 'counted') {
            return [
                'rows' => (int) $count->rows,
                'uniqueRows' => (int) $count->unique_rows,
                'repeatedRows' => (int) $count->repeated_rows,
                'unkeyedRows' => (int) $count->unkeyed_rows,
                'isWhole' => true,
            ];
        }
        if ($count->wasRecentlyCreated) {
            CountKeyOfDelivery::dispatch($count->id);
        }
        $sample = $this->sample($delivery, $columns, $rules);

        return [
            'rows' => $sample->rows,
            'uniqueRows' => $sample->uniqueRows,
            'repeatedRows' => $sample->repeatedRows,
            'unkeyedRows' => $sample->unkeyedRows,
            'isWhole' => $sample->isWhole,
        ];
    }

    /**
     * A side whose steps must run first is counted on its kept sample: nobody waits for all of it to be prepared.
     *
     * @param  non-empty-list<string>  $columns
     */
    private function sample(Delivery $delivery, array $columns, SideRules $rules): KeyUniqueness
    {
        if ($this->sides->isReadAsDelivered($delivery, $rules)) {
            return KeyUniqueness::count($this->sides->reader($delivery, $rules, new PreparationInputs), $columns, $this->sampleRows);
        }
        ['columns' => $names, 'rows' => $rows] = $this->deliverySample->prepared($delivery, $rules, PHP_INT_MAX);
        $records = array_map(static fn(array $cells, int $nth): Row => new Row($nth + 1, $cells), $rows, array_keys($rows));

        return KeyUniqueness::ofRecords(
            Columns::named($delivery->file_name, $names),
            $records,
            $columns,
            $this->deliverySample->isWhole($delivery) ? null : max(0, count($records) - 1),
        );
    }
}
