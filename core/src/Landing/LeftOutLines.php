<?php

declare(strict_types=1);

namespace NineTally\Core\Landing;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Preparation\PreparedReader;
use NineTally\Core\Row\RecordPlace;

/** Which rows of a delivery steps left out: a row of which anything is left was not. A byte for each line, whatever becomes of it. */
final class LeftOutLines
{
    private const KEPT = "\0";

    /** @var array<int, string> by part: at each line the number of the step that left its row out */
    private array $steps = [];

    /** @param callable(): void $onProgress called now and then; whoever wants to end it throws there */
    public static function of(Reader $reader, callable $onProgress): self
    {
        $lines = new self;
        if (! $reader instanceof PreparedReader || $reader->ledger->leftOut() === 0) {
            return $lines;
        }
        $seen = 0;
        foreach ($reader->side()->leftOut() as $row) {
            $seen++ % 1_000 === 0 && $onProgress();
            $lines->set($row->place(), chr(min(255, $row->step)));
        }
        foreach ($reader->batches() as $batch) {
            $onProgress();
            if (! $batch instanceof Batch) {
                continue;
            }
            // A prepared row is a line, whatever stands in it.
            for ($nth = 0, $rows = substr_count($batch->rows, Batch::ROW_END) + 1; $nth < $rows; $nth++) {
                $place = $reader->place($batch->firstLine + $nth);
                if ($lines->stepOf($place) !== null) {
                    $lines->set($place, self::KEPT);
                }
            }
        }

        return $lines;
    }

    /** @return int|null the number of the step, from 1; null where the row stayed, or went into another */
    public function stepOf(RecordPlace $place): ?int
    {
        $step = $this->steps[$place->part][$place->line] ?? self::KEPT;

        return $step === self::KEPT ? null : ord($step);
    }

    private function set(RecordPlace $place, string $step): void
    {
        $this->steps[$place->part] ??= '';
        if (strlen($this->steps[$place->part]) <= $place->line) {
            $this->steps[$place->part] = str_pad($this->steps[$place->part], 2 * $place->line + 64, self::KEPT);
        }
        // In its place: a second name for the string would copy all of it for each byte.
        $this->steps[$place->part][$place->line] = $step;
    }
}
