<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Row;

/** For readers whose format cannot be divided: one range, and batches put together from rows. */
trait RowByRowBatches
{
    /** @return \Generator<int, Row|RefusedRecord> */
    abstract public function records(?callable $onBytes = null): \Generator;

    public function batches(ByteRange $range = new ByteRange, ?callable $onBytes = null): \Generator
    {
        $rows = [];
        $line = 0;
        foreach ($this->records($onBytes) as $record) {
            // Lines of rows need not follow on each other, so each row that does not is a batch of its own.
            $isNext = $record instanceof Row && $rows !== [] && $record->line === $line + 1 && count($rows) < 500;
            if ($rows !== [] && ! $isNext) {
                yield new Batch(implode(Batch::ROW_END, $rows), $line - count($rows) + 1);
                $rows = [];
            }
            $line = $record->line;
            if ($record instanceof RefusedRecord) {
                yield $record;
            } else {
                $rows[] = implode(Batch::CELL_END, $record->cells);
            }
        }
        if ($rows !== []) {
            yield new Batch(implode(Batch::ROW_END, $rows), $line - count($rows) + 1);
        }

        return $line;
    }

    public function ranges(int $bytes): array
    {
        return [new ByteRange];
    }
}
