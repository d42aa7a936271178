<?php

declare(strict_types=1);

namespace App\Actions\Match;

use App\Adapters\ShapedSides;
use App\Adapters\ShapeInputs;
use App\Jobs\CountKeyOfDelivery;
use App\Models\Delivery;
use App\Models\KeyCount;
use NineTally\Core\Advice\KeyUniqueness;
use NineTally\Core\Plan\SideRules;

/** How well columns tell the rows of a delivery apart: on a sample at once, on the whole delivery as soon as a worker has counted it. */
final readonly class CountKey
{
    public function __construct(private ShapedSides $sides, private int $sampleRows) {}

    /**
     * @param  non-empty-list<string>  $columns
     * @return array{rows: int, uniqueRows: int, repeatedRows: int, unkeyedRows: int, isWhole: bool}
     */
    public function __invoke(Delivery $delivery, array $columns, SideRules $rules): array
    {
        $count = KeyCount::query()->createOrFirst(
            ['delivery_id' => $delivery->id, 'columns_digest' => hash('sha256', json_encode([$columns, ...($rules->shape->isEmpty() ? [] : [$rules->shape->digest()])], JSON_THROW_ON_ERROR))],
            ['columns' => $columns, 'state' => 'queued'],
        );
        if ($count->state === 'counted') {
            return ['rows' => (int) $count->rows, 'uniqueRows' => (int) $count->unique_rows, 'repeatedRows' => (int) $count->repeated_rows, 'unkeyedRows' => (int) $count->unkeyed_rows, 'isWhole' => true];
        }
        if ($count->wasRecentlyCreated) {
            CountKeyOfDelivery::dispatch($count->id);
        }
        $sample = KeyUniqueness::count($this->sides->reader($delivery, $rules, ShapeInputs::now($delivery->dataset, $rules)), $columns, $this->sampleRows);

        return ['rows' => $sample->rows, 'uniqueRows' => $sample->uniqueRows, 'repeatedRows' => $sample->repeatedRows, 'unkeyedRows' => $sample->unkeyedRows, 'isWhole' => $sample->isWhole];
    }
}
