<?php

declare(strict_types=1);

namespace App\Queries\Deliver;

use App\Models\Delivery;
use App\Models\RefusedRecord;
use App\Queries\Review\SideMask;
use NineTally\Core\Report\CsvLine;

/** Every refused record of a delivery with its file, line and reason, to be given back to whoever delivered it. */
final readonly class RefusedCsv
{
    /** @return \Generator<int, string> UTF-8, comma, RFC 4180 quotes, LF; bytes that are no text as their hexadecimal value */
    public function __invoke(Delivery $delivery, SideMask $mask): \Generator
    {
        $files = $delivery->parts->pluck('file_name', 'number');
        yield CsvLine::of(['file', 'line', 'reason', 'what is wrong', 'record']);
        foreach ($delivery->refusedRecords()->orderBy('number')->lazy() as $record) {
            /** @var RefusedRecord $record */
            $file = $files->get($record->part);
            yield CsvLine::of([
                is_string($file) ? $file : '',
                (string) $record->line,
                $record->reason->value,
                $record->sentence(),
                $mask->text($record->raw),
            ]);
        }
    }
}
