<?php

declare(strict_types=1);

namespace App\Queries\TakeAway;

use App\Queries\Review\FindingPages;
use App\Queries\Review\RulableRow;
use App\Queries\Review\Standing;
use App\Rulings\FindingSet\Filter;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Comparison\RowRecord;
use NineTally\Core\Row\Side;
use NineTally\Core\Wording\Sentences;

/** A line for each row that does not agree, with all columns of both sides. */
final readonly class RowTable implements Table
{
    private const PAGE = 2_000;

    public function __construct(private TakenTally $taken, private Filter $filter, private FindingPages $pages) {}

    public function fields(): array
    {
        return [
            new TableField('row', 'integer', 'Place of the row among the findings of the tally, from 1.'),
            ...$this->taken->keyFields(),
            new TableField('class', 'string', 'missing, extra, repeated, unkeyed, refused or changed.'),
            new TableField('side', 'string', 'source or target of a row that only one side has; of a changed row nothing.'),
            new TableField('reason', 'string', 'The id of the reason of its class, where that is known.'),
            new TableField('reason.sentence', 'string', 'The reason in words; of a refused record what is wrong with it.'),
            new TableField('bridged', 'boolean', 'Whether both sides met by a bridge.'),
            new TableField('source.part', 'integer', 'Part of the delivery that the row stands in, from 1.'),
            new TableField('source.line', 'integer', 'Line on which its record begins.'),
            new TableField('target.part', 'integer', 'As of the source.'),
            new TableField('target.line', 'integer', 'As of the source.'),
            new TableField('source.rows', 'integer', 'Rows of the source that have its key.'),
            new TableField('target.rows', 'integer', 'Rows of the target that have its key.'),
            new TableField('kept.line', 'integer', 'Of a repeated row that was not kept: the line of the one that was.'),
            new TableField('differing', 'integer', 'Cells that differ.'),
            ...$this->columnFields(Side::Source),
            ...$this->columnFields(Side::Target),
            new TableField('refused', 'string', 'The record as it was delivered, where it could not be read.'),
            ...$this->taken->rulingFields(),
            ...$this->taken->originFields(),
        ];
    }

    public function primaryKey(): array
    {
        return ['tally', 'row'];
    }

    public function lines(): \Generator
    {
        $origin = $this->taken->origin();
        $sentences = new Sentences;
        $sequence = $read = 0;
        do {
            $rows = array_values(
                array_filter(
                    $this->pages->after($this->taken->tally, $this->filter, $this->taken->mask, $sequence, self::PAGE),
                    static fn(mixed $finding): bool => $finding instanceof RulableRow,
                ),
            );
            $this->taken->willNeed(array_map(static fn(RulableRow $row): Standing => $row->standing, $rows));
            foreach ($rows as $rulable) {
                $row = $rulable->finding;
                $sequence = $row->sequence;
                [$source, $target] = [$row->placeOn(Side::Source), $row->placeOn(Side::Target)];
                yield ++$read => [
                    $row->sequence,
                    ...$this->taken->key($row->deliveredKey),
                    $row->class->value,
                    (string) $row->side?->value,
                    $row->refused->reason->value ?? $row->reason->value ?? '',
                    $row->refused === null
                        ? ($row->reason === null ? '' : $sentences->reason($row->reason, $row->reasonFacts))
                        : $sentences->refusal($row->refused->reason, $row->refused->facts),
                    $row->isBridged ? 'true' : 'false',
                    $source->part ?? '',
                    $source->line ?? '',
                    $target->part ?? '',
                    $target->line ?? '',
                    $row->rowsOfKey['source'],
                    $row->rowsOfKey['target'],
                    $row->kept->line ?? '',
                    $row->differingCells,
                    ...$this->cells($row, Side::Source),
                    ...$this->cells($row, Side::Target),
                    (string) $row->refused?->raw,
                    ...$this->taken->ruling($rulable->standing),
                    ...$origin,
                ];
            }
        } while (count($rows) === self::PAGE);
    }

    /** @return list<TableField> */
    private function columnFields(Side $side): array
    {
        $fields = [];
        foreach ($this->names($side) as $name) {
            $fields[] = new TableField("{$side->value}.{$name}", 'string', 'The cell as it was prepared.');
            $fields[] = new TableField(
                "{$side->value}.{$name}.state",
                'string',
                'no row, blank, token (a word that means blank), or nothing: it has a value.',
            );
        }

        return $fields;
    }

    /** @return list<string> */
    private function cells(RowFinding $row, Side $side): array
    {
        $record = $side === Side::Source ? $row->source : $row->target;
        $cells = [];
        foreach ($this->names($side) as $place => $name) {
            $value = $record instanceof RowRecord ? $record->cells[$place] ?? '' : null;
            $cells[] = (string) $value;
            $cells[] = $this->taken->state($side, $name, $value);
        }

        return $cells;
    }

    /** @return list<string> */
    private function names(Side $side): array
    {
        return $side === Side::Source ? $this->taken->layout->sourceColumns : $this->taken->layout->targetColumns;
    }
}
