<?php

declare(strict_types=1);

namespace App\Adapters\Database;

use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Comparison\RowReason;
use NineTally\Core\Comparison\RowRecord;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\RecordPlace;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Side;

/**
 * The columns in which a row that did not agree is kept: the one place that says which fact stands where, for writing and for reading.
 * A further fact is a line in each of both methods, and a column.
 */
final readonly class RowFindingColumns
{
    /** @return array<string, string|int|null> what is written, by column */
    public static function of(RowFinding $row): array
    {
        [$source, $target] = [$row->placeOn(Side::Source), $row->placeOn(Side::Target)];

        return [
            'sequence' => $row->sequence,
            'ordinal' => $row->ordinal,
            'class' => $row->class->value,
            'side' => $row->side?->value,
            'key' => $row->deliveredKey?->asCsv(),
            'source_rows' => $row->rowsOfKey['source'],
            'target_rows' => $row->rowsOfKey['target'],
            'source_line' => $source?->line,
            'target_line' => $target?->line,
            'source_part' => $source?->part,
            'target_part' => $target?->part,
            'source_cells' => self::cells($row->source),
            'target_cells' => self::cells($row->target),
            'differing_cells' => $row->differingCells,
            'reason' => $row->reason?->value,
            'reason_facts' => self::facts($row->reasonFacts),
            'kept_line' => $row->kept?->line,
            'kept_part' => $row->kept?->part,
            'is_bridged' => $row->isBridged ? 't' : 'f',
            'refusal' => $row->refused?->reason->value,
            'refusal_facts' => self::facts($row->refused->facts ?? []),
            // A zero byte stands in no text of the database.
            'refused_text' => $row->refused === null ? null : str_replace("\0", '\x00', $row->refused->readableRaw()),
        ];
    }

    /** @return list<string> what is read */
    public static function names(): array
    {
        return array_keys(self::of(new RowFinding(0, 1, RowClass::Agreed, null, null)));
    }

    public static function read(DatabaseRow $row): RowFinding
    {
        $side = $row->textOrNull('side') === null ? null : Side::from($row->text('side'));
        $line = static fn(Side $of): int => $row->intOrNull("{$of->value}_line") ?? 0;
        $part = static fn(Side $of): int => $row->intOrNull("{$of->value}_part") ?? 1;
        $record = static function (Side $of) use ($row, $line, $part): ?RowRecord {
            $cells = $row->cellsOrNull("{$of->value}_cells");

            return $cells === null ? null : new RowRecord($line($of), $cells, $part($of));
        };
        $refusal = $row->textOrNull('refusal');
        $key = $row->textOrNull('key');

        return new RowFinding(
            sequence: $row->int('sequence'),
            // Tallies of an earlier version did not keep it.
            ordinal: $row->intOrNull('ordinal') ?? 0,
            class: RowClass::from($row->text('class')),
            side: $side,
            key: null,
            source: $record(Side::Source),
            target: $record(Side::Target),
            rowsOfKey: ['source' => $row->int('source_rows'), 'target' => $row->int('target_rows')],
            refused: $refusal === null || $side === null
                ? null
                : RefusedRecord::restored(
                    $line($side),
                    ['reason' => $refusal, 'facts' => $row->facts('refusal_facts'), 'raw' => $row->text('refused_text'), 'digest' => ''],
                    $part($side),
                ),
            kept: $row->intOrNull('kept_line') === null ? null : new RecordPlace($row->int('kept_part'), $row->int('kept_line')),
            reason: $row->textOrNull('reason') === null ? null : RowReason::from($row->text('reason')),
            reasonFacts: $row->facts('reason_facts'),
            isBridged: $row->flag('is_bridged'),
            deliveredKey: $key === null ? null : KeyTuple::fromCsv($key),
            differing: $row->int('differing_cells'),
        );
    }

    private static function cells(?RowRecord $record): ?string
    {
        return $record === null ? null : json_encode($record->cells, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES);
    }

    /** @param array<string, string|int> $facts */
    private static function facts(array $facts): ?string
    {
        return $facts === [] ? null : json_encode($facts, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES);
    }
}
