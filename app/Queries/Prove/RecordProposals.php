<?php

declare(strict_types=1);

namespace App\Queries\Prove;

use App\Adapters\Deliveries\DeliveryReader;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\DeliveryProfile;
use Illuminate\Support\Str;
use NineTally\Core\Advice\ColumnNames;
use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Row\Side;

/**
 * Columns of a plan that probably refer to records of other datasets: by their names, and by whether their most frequent values have a
 * record there.
 */
final readonly class RecordProposals
{
    private const ALIKE = 0.8;

    /** Of its values so many must have a record. */
    private const MOST = 0.5;

    /** Of large deliveries the beginning is looked at. */
    private const RECORDS = 50_000;

    public function __construct(private DeliveryReader $reader) {}

    /**
     * @return list<array{in: string, columns: list<array{source: string, target: string}>, by: list<array{source: string, target: string}>,
     *     found: int, values: int}> those with most values found first
     */
    public function of(Dataset $dataset): array
    {
        /** @var list<array{source: string, target: string}> $pairs */
        $pairs = [...$dataset->draft->document['key'] ?? [], ...$dataset->draft->document['columnPairs'] ?? []];
        $frequent = $this->frequentValues($dataset);
        $proposals = [];
        foreach ($dataset->migration->datasets()->whereKeyNot($dataset->id)->with('draft')->orderBy('name')->get() as $other) {
            $delivery = $other->latestDelivery(Side::Source) ?? $other->latestDelivery(Side::Target);
            foreach ($delivery === null ? [] : $this->recordColumns($other, $delivery) as $by) {
                $alike = array_values(
                    array_filter($pairs, fn(array $pair): bool => $this->areAlike($pair['source'], $by['source'], $other->name)),
                );
                $asked = array_intersect_key($frequent, array_flip(array_column($alike, 'source')));
                $found = $delivery === null || $asked === [] ? [] : $this->found($delivery, $by['source'], $asked);
                foreach ($alike as $pair) {
                    [$has, $values] = [$found[$pair['source']] ?? 0, count($frequent[$pair['source']] ?? [])];
                    if ($values > 0 && $has / $values >= self::MOST) {
                        $proposals[] = [
                            'in' => $other->name,
                            'columns' => [['source' => $pair['source'], 'target' => $pair['target']]],
                            'by' => [$by],
                            'found' => $has,
                            'values' => $values,
                        ];
                    }
                }
            }
        }
        usort(
            $proposals,
            static fn(array $one, array $other): int => $other['found'] / $other['values'] <=> $one['found'] / $one['values'],
        );

        return $proposals;
    }

    /** "basin" and the code of "Basins", "holder_no" and the number of "Holders", "agent" and "agent". */
    private function areAlike(string $column, string $by, string $dataset): bool
    {
        $singular = Str::singular($dataset);

        return max(
            ColumnNames::likeness($column, $by),
            ColumnNames::likeness($column, $singular),
            ColumnNames::likeness($column, "{$singular} {$by}"),
        ) >= self::ALIKE;
    }

    /** @return list<array{source: string, target: string}> that tell its records apart by themselves, on each side */
    private function recordColumns(Dataset $dataset, Delivery $delivery): array
    {
        /** @var list<array{source: string, target: string}> $key */
        $key = $dataset->draft->document['key'] ?? [];
        if (count($key) === 1) {
            return [['source' => $key[0]['source'], 'target' => $key[0]['target']]];
        }
        $unique = [];
        foreach (DeliveryProfile::query()->find($delivery->id)->columns ?? [] as $column) {
            if ($column['blank'] === 0 && $column['values'] > 0 && $column['distinct'] === $column['values']) {
                $unique[] = ['source' => $column['name'], 'target' => $column['name']];
            }
        }

        return $unique;
    }

    /** @return array<string, list<string>> by column of the source as delivered */
    private function frequentValues(Dataset $dataset): array
    {
        $delivery = $dataset->latestDelivery(Side::Source);
        $values = [];
        foreach (DeliveryProfile::query()->find($delivery->id ?? 0)->columns ?? [] as $column) {
            $values[$column['name']] = array_column($column['most_frequent'], 'value');
        }

        return $values;
    }

    /**
     * @param  array<string, list<string>>  $asked  values by column
     * @return array<string, int> how many of them have a record
     */
    private function found(Delivery $delivery, string $by, array $asked): array
    {
        $stack = $this->reader->stack($delivery);
        if (! in_array($by, $stack->columns, true)) {
            return [];
        }
        $place = ColumnIndex::of($stack->columns)->all([$by])[0];
        $records = [];
        foreach ($stack->records() as $record) {
            if (is_array($record)) {
                $records[$record[$place]] = true;
            }
            if (count($records) >= self::RECORDS) {
                break;
            }
        }

        return array_map(
            static fn(array $values): int => count(array_filter($values, static fn(string $value): bool => isset($records[$value]))),
            $asked,
        );
    }
}
