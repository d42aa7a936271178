<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

use NineTally\Core\Intake\Reader;
use NineTally\Core\Row\RecordPlace;
use NineTally\Core\Row\RefusedRecord;

/** The parts of a delivery, one after the other, under columns that are united by name. */
final readonly class PartStack
{
    /** @var list<string> */
    public array $columns;

    /**
     * @param  non-empty-list<array{reader: Reader, label: string}>  $parts  with the label of each
     * @param  string|null  $partLabelColumn  name of the column that holds the label; null: there is none
     */
    public function __construct(private array $parts, private ?string $partLabelColumn = null)
    {
        $names = [];
        foreach ($parts as ['reader' => $reader]) {
            foreach ($reader->columns()->names as $name) {
                $names[$name] = true;
            }
        }
        $columns = array_map(strval(...), array_keys($names));
        if ($partLabelColumn !== null) {
            ColumnIndex::of($columns)->mustBeFree([$partLabelColumn]);
        }
        $this->columns = $partLabelColumn === null ? $columns : [...$columns, $partLabelColumn];
    }

    /** @return array<string, list<int>> columns that only some parts have => numbers of those parts, from 1 */
    public function partial(): array
    {
        $partial = [];
        foreach ($this->columns as $name) {
            $having = [];
            foreach ($this->parts as $position => ['reader' => $reader]) {
                if ($reader->columns()->has($name)) {
                    $having[] = $position + 1;
                }
            }
            if ($having !== [] && count($having) < count($this->parts)) {
                $partial[$name] = $having;
            }
        }

        return $partial;
    }

    public function bytes(): int
    {
        return array_sum(array_map(static fn(array $part): int => $part['reader']->bytes(), $this->parts));
    }

    /**
     * @param  (callable(int): void)|null  $onBytes  told how many bytes have been read of all parts
     * @return \Generator<int, list<string>|RefusedRecord> by packed place
     *
     * @throws \NineTally\Core\Intake\UnreadableFile
     */
    public function records(?callable $onBytes = null): \Generator
    {
        $before = 0;
        foreach ($this->parts as $position => ['reader' => $reader, 'label' => $label]) {
            $arrange = $this->arrangement($reader, $label);
            $onBytesOfPart = $onBytes === null ? null : static function (int $bytes) use ($onBytes, $before): void {
                $onBytes($before + $bytes);
            };
            $base = (new RecordPlace($position + 1, 0))->packed();
            foreach ($reader->records($onBytesOfPart) as $record) {
                yield $base + $record->line => $record instanceof RefusedRecord
                    ? $record
                    : ($arrange === null
                        ? $record->cells
                        : $arrange(new RowCursor($record->cells)));
            }
            $before += $reader->bytes();
        }
    }

    /** @return (\Closure(RowCursor): list<string>)|null null where cells stand as they should */
    private function arrangement(Reader $reader, string $label): ?\Closure
    {
        $names = $reader->columns()->names;
        if ($names === $this->columns) {
            return null;
        }
        $places = array_map(
            fn(string $name): ?int => $reader->columns()->has($name) ? $reader->columns()->positionOf($name) : null,
            $this->columns,
        );
        $labelled = $this->partLabelColumn === null ? null : count($this->columns) - 1;

        return static function (RowCursor $row) use ($places, $labelled, $label): array {
            $cells = $row->cells;
            $arranged = [];
            foreach ($places as $place) {
                $arranged[] = $place === null ? '' : $cells[$place];
            }
            if ($labelled !== null) {
                $arranged[$labelled] = $label;
            }

            return array_values($arranged);
        };
    }
}
