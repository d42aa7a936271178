<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Models\Dataset;
use App\Models\DeliveryProfile;
use NineTally\Core\Row\Side;
use NineTally\Core\Value\Kind;

/**
 * Columns that probably say how a row was loaded, and not what it is about: copies may differ there. Told from the profile; proposed, never
 * left out by themselves.
 */
final readonly class TechnicalColumns
{
    /** Fewer values tell nothing. */
    private const FEWEST = 20;

    /** Of the values, so many are different in a column that numbers its rows. */
    private const NEARLY_ALL = 0.98;

    /** Rows that have one time in common, on the average, where it is that of a load. */
    private const OF_ONE_LOAD = 10;

    /**
     * @param  list<string>  $key  columns of the key
     * @param  list<string>  $paired  columns that the plan compares
     * @return list<array{column: string, reason: string}>
     */
    public function of(Dataset $dataset, Side $side, array $key, array $paired): array
    {
        $delivery = $dataset->latestDelivery($side);
        $profile = $delivery === null ? null : DeliveryProfile::query()->find($delivery->id);
        $technical = [];
        foreach ($profile->columns ?? [] as $column) {
            $reason = in_array($column['name'], $key, true) || $column['values'] < self::FEWEST
                ? null
                : self::reason($column, in_array($column['name'], $paired, true));
            if ($reason !== null) {
                $technical[] = ['column' => $column['name'], 'reason' => $reason];
            }
        }

        return $technical;
    }

    /** @param array{values: int, distinct: int, kind: string, ...} $column */
    private static function reason(array $column, bool $isPaired): ?string
    {
        $isTime = $column['kind'] === Kind::DateTime->value;

        return match (true) {
            $column['distinct'] >= self::NEARLY_ALL * $column['values'] && ($isTime || ! $isPaired) =>
                'another value in nearly every row, as a number or a time of the load has',
            $isTime && ! $isPaired && $column['distinct'] * self::OF_ONE_LOAD <= $column['values'] =>
                'a time that many rows have in common, as that of a load is',
            default => null,
        };
    }
}
