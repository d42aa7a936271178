<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

use OpenSpout\Reader\Common\Creator\ReaderEntityFactory;
use OpenSpout\Reader\ReaderInterface;
use OpenSpout\Reader\SheetInterface;

/** Opens workbooks, and finds their sheets. */
final readonly class Workbook
{
    /** @throws NotUsable */
    public static function find(string $path, string $name, PartKind $kind): FoundPart
    {
        $sheets = [];
        $reader = self::open($path, $name, $kind);
        try {
            /** @var SheetInterface $sheet */
            foreach ($reader->getSheetIterator() as $sheet) {
                $sheets[] = ['name' => $sheet->getName(), 'hidden' => ! $sheet->isVisible()];
            }
        } catch (\Throwable) {
            throw NotUsable::isNoWorkbook($name, 'it is damaged, or was not written to its end');
        } finally {
            $reader->close();
        }
        $visible = array_values(array_filter($sheets, static fn(array $sheet): bool => ! $sheet['hidden']));
        $first = $visible[0]['name'] ?? $sheets[0]['name'] ?? throw NotUsable::isNoWorkbook($name, 'it has no sheet');
        $hidden = count($sheets) - count($visible);

        [$headerRow, $why] = WorkbookReader::likelyHeaderRow($path, $name, PartFormat::workbook($kind, $first, 1, $sheets));

        return new FoundPart(PartFormat::workbook($kind, $first, $headerRow, $sheets), [
            'kind' => $kind->noun(),
            'sheet' => count($sheets) === 1 ? 'its only sheet' : sprintf('the first of %d sheets%s', count($sheets), $hidden === 0 ? '' : sprintf(', %d of them hidden', $hidden)),
            'headerRow' => $why,
        ]);
    }

    /** @throws NotUsable */
    public static function open(string $path, string $name, PartKind $kind): ReaderInterface
    {
        Archive::open($path, $name);
        $reader = $kind === PartKind::Ods ? OpenDocumentSheets::reader() : ReaderEntityFactory::createXLSXReader();
        // Blank rows are rows of the sheet: without them the numbers of those that follow would be wrong.
        $reader->setShouldPreserveEmptyRows(true);
        try {
            $reader->open($path);
        } catch (\Throwable) {
            throw NotUsable::isNoWorkbook($name, 'it is damaged');
        }

        return $reader;
    }
}
