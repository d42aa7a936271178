<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Workbooks;

use NineTally\Core\Intake\FoundPart;
use NineTally\Core\Intake\PartFormat;
use NineTally\Core\Intake\PartKind;
use NineTally\Core\Intake\UnreadableFile;

/** Finds the sheets of a workbook, which of them is meant, and on which of its rows the names of the columns stand. */
final readonly class WorkbookDetection
{
    /** @throws UnreadableFile */
    public static function find(string $path, string $name, PartKind $kind): FoundPart
    {
        $workbook = Workbook::open($path, $name, $kind);
        try {
            $sheets = $workbook->sheets();
        } finally {
            $workbook->close();
        }
        $visible = array_values(array_filter($sheets, static fn(array $sheet): bool => ! $sheet['hidden']));
        $first = $visible[0]['name'] ?? $sheets[0]['name'] ?? throw UnreadableFile::isNoWorkbook($name, 'it has no sheet');
        $hidden = count($sheets) - count($visible);

        [$headerRow, $why] = WorkbookReader::likelyHeaderRow($path, $name, PartFormat::workbook($kind, $first, 1, $sheets));

        return new FoundPart(PartFormat::workbook($kind, $first, $headerRow, $sheets), [
            'kind' => $kind->noun(),
            'sheet' =>
                count($sheets) === 1
                    ? 'its only sheet'
                    : sprintf('the first of %d sheets%s', count($sheets), $hidden === 0 ? '' : sprintf(', %d of them hidden', $hidden)),
            'headerRow' => $why,
        ]);
    }
}
