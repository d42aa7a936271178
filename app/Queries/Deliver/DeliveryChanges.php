<?php

declare(strict_types=1);

namespace App\Queries\Deliver;

use App\Models\Delivery;
use App\Models\DeliveryProfile;
use NineTally\Core\Profile\HowValuesLie;

/**
 * What changed on a side since the delivery before, in words: rows, columns, kinds and blanks.
 *
 * @phpstan-import-type Column from HowValuesLie
 */
final readonly class DeliveryChanges
{
    /** @return array{since: int, changes: list<string>}|null null when there was none before, or it is still being looked at */
    public function __invoke(?Delivery $delivery): ?array
    {
        $earlier = $delivery === null ? null : Delivery::query()->where('dataset_id', $delivery->dataset_id)->where('side', $delivery->side)->where('number', $delivery->number - 1)->first();
        if ($delivery === null || $earlier === null) {
            return null;
        }
        $changes = [];
        $more = $delivery->delivered_count - $earlier->delivered_count;
        if ($more !== 0) {
            $changes[] = sprintf('%s %s %s', number_format(abs($more)), abs($more) === 1 ? 'row' : 'rows', $more > 0 ? 'more' : 'fewer');
        }
        foreach (array_diff($delivery->columns, $earlier->columns) as $name) {
            $changes[] = "column {$name} is new";
        }
        foreach (array_diff($earlier->columns, $delivery->columns) as $name) {
            $changes[] = "column {$name} is gone";
        }
        [$now, $before] = [$this->columns($delivery), $this->columns($earlier)];
        foreach (array_intersect_key($now, $before) as $name => $column) {
            $changes = [...$changes, ...$this->ofColumn((string) $name, $before[$name], $column)];
        }
        if ($delivery->digest === $earlier->digest) {
            $changes = ['nothing: the bytes are the same'];
        }

        return ['since' => $earlier->number, 'changes' => $changes === [] ? ['rows, columns, kinds and blanks are as they were'] : $changes];
    }

    /**
     * @param  Column  $before
     * @param  Column  $now
     * @return list<string>
     */
    private function ofColumn(string $name, array $before, array $now): array
    {
        return array_values(array_filter([
            $before['kind'] === $now['kind'] ? '' : "{$name} looks like {$now['kind']}, no longer like {$before['kind']}",
            $before['blank'] === 0 && $now['blank'] > 0 ? sprintf('%s is blank in %s rows, and never was before', $name, number_format($now['blank'])) : '',
            $before['blank'] > 0 && $now['blank'] === 0 ? "{$name} is no longer blank anywhere" : '',
        ]));
    }

    /** @return array<string, Column> by name */
    private function columns(Delivery $delivery): array
    {
        $columns = [];
        foreach (DeliveryProfile::query()->find($delivery->id)->columns ?? [] as $column) {
            $columns[$column['name']] = $column;
        }

        return $columns;
    }
}
