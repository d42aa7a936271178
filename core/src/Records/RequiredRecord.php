<?php

declare(strict_types=1);

namespace NineTally\Core\Records;

use NineTally\Core\Row\Side;

/**
 * Columns whose values must have a record in another dataset, on each side in that side's own world.
 *
 * @phpstan-type RecordDocument array{in: string, columns: non-empty-list<array{source: string, target: string}>,
 *     by: non-empty-list<array{source: string, target: string}>, forgives?: list<string>}
 */
final readonly class RequiredRecord
{
    /**
     * @param  string  $in  the name of the dataset that has the records
     * @param  non-empty-list<array{source: string, target: string}>  $columns  of the prepared rows
     * @param  non-empty-list<array{source: string, target: string}>  $by  as many, of the records as they were delivered
     * @param  list<string>  $forgives  causes of form
     */
    private function __construct(public string $in, public array $columns, public array $by, public array $forgives) {}

    /** @param RecordDocument $document */
    public static function fromArray(array $document): self
    {
        return new self($document['in'], $document['columns'], $document['by'], $document['forgives'] ?? []);
    }

    /** @return RecordDocument */
    public function toArray(): array
    {
        return [
            'in' => $this->in,
            'columns' => $this->columns,
            'by' => $this->by,
            ...$this->forgives === [] ? [] : ['forgives' => $this->forgives],
        ];
    }

    /** @return list<string> */
    public function columnsOf(Side $side): array
    {
        return array_column($this->columns, $side->value);
    }

    /** @return list<string> */
    public function recordColumns(Side $side): array
    {
        return array_column($this->by, $side->value);
    }

    /** What must have a record, such as "basin and berth". */
    public function name(): string
    {
        return implode(' and ', array_map(static fn(array $pair): string => self::pair($pair), $this->columns));
    }

    /** What of a record is looked at. */
    public function recordName(): string
    {
        return implode(' and ', array_map(static fn(array $pair): string => self::pair($pair), $this->by));
    }

    public function sentence(): string
    {
        return "{$this->name()} must have a record in {$this->in}, by {$this->recordName()}";
    }

    /** @return array<string, string> place within the rule => the column of that side that is named there */
    public function namesByPlace(Side $side): array
    {
        $names = [];
        foreach ($this->columnsOf($side) as $nth => $name) {
            $names["/columns/{$nth}/{$side->value}"] = $name;
        }

        return $names;
    }

    /** @param array{source: string, target: string} $pair */
    private static function pair(array $pair): string
    {
        return $pair['source'] === $pair['target'] ? $pair['source'] : "{$pair['source']} / {$pair['target']}";
    }
}
