<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Workbooks;

use NineTally\Core\Intake\FoundPart;
use NineTally\Core\Intake\PartFormat;
use NineTally\Core\Intake\PartKind;
use NineTally\Core\Intake\SheetPlace;
use NineTally\Core\Intake\UnreadableFile;

/** Finds the sheets of a workbook, which of them is meant, and on which of its rows the names of the columns stand. */
final readonly class WorkbookDetection
{
    /** Of a workbook with more the first ones are looked at. */
    private const MOST_SHEETS = 20;

    /** @throws UnreadableFile */
    public static function find(string $path, string $name, PartKind $kind): FoundPart
    {
        $workbook = Workbook::open($path, $name, $kind);
        try {
            $sheets = $workbook->sheets();
            $visible = array_values(array_filter($sheets, static fn(array $sheet): bool => ! $sheet['hidden']));
            $candidates = $visible === [] ? $sheets : $visible;
            $chosen = 0;
            $survey = null;
            foreach (array_slice($candidates, 0, self::MOST_SHEETS) as $place => $sheet) {
                $of = SheetSurvey::in($workbook, $path, $kind, $sheet['name']);
                if ($survey === null || $of->weight() > $survey->weight()) {
                    [$chosen, $survey] = [$place, $of];
                }
            }
        } finally {
            $workbook->close();
        }
        if ($survey === null) {
            throw UnreadableFile::isNoWorkbook($name, 'it has no sheet');
        }
        $sheet = $candidates[$chosen]['name'];
        $hidden = count($sheets) - count($visible);
        $found = self::at($path, $name, PartFormat::workbook($kind, $sheet, $sheets), $survey);

        return new FoundPart($found->format, [
            'kind' => $kind->noun(),
            'sheet' => count($sheets) === 1 ? 'its only sheet' : sprintf(
                '%s of %d sheets%s',
                $chosen === 0 ? 'the first' : 'the one with the largest table',
                count($sheets),
                $hidden === 0 ? '' : sprintf(', %d of them hidden', $hidden),
            ),
            ...$found->reasons,
        ]);
    }

    /**
     * Where the table stands in the sheet that somebody chose.
     *
     * @throws UnreadableFile
     */
    public static function inSheet(string $path, string $name, PartFormat $format): FoundPart
    {
        return self::at($path, $name, $format, SheetSurvey::of($path, $name, $format->kind, $format->sheet));
    }

    private static function at(string $path, string $name, PartFormat $format, SheetSurvey $survey): FoundPart
    {
        [$headerRow, $why] = $survey->headerRow();
        [$below, $which] = $survey->below($name, $headerRow);

        return new FoundPart(
            PartFormat::workbook(
                $format->kind,
                $format->sheet,
                $format->sheets,
                new SheetPlace($headerRow, $below, $survey->skipLeft()),
            ),
            ['headerRow' => $why, ...$below === 0 ? [] : ['skipBelow' => $which]],
        );
    }
}
