<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Workbooks;

use NineTally\Core\Intake\FoundPart;
use NineTally\Core\Intake\PartFormat;
use NineTally\Core\Intake\PartKind;
use NineTally\Core\Intake\SheetPlace;
use NineTally\Core\Intake\UnreadableFile;

/**
 * Finds the sheets of a workbook, which of them is meant, on which of its rows the names of the columns stand, and which other sheets have
 * the same.
 */
final readonly class WorkbookDetection
{
    /** Of a workbook with more the first ones are looked at. */
    private const MOST_SHEETS = 20;

    /** @throws UnreadableFile */
    public static function find(string $path, string $name, PartKind $kind): FoundPart
    {
        [$sheets, $surveys] = self::look($path, $name, $kind);
        $chosen = null;
        foreach ($surveys as $sheet => $of) {
            $chosen = $chosen === null || $of->weight() > $surveys[$chosen]->weight() ? $sheet : $chosen;
        }
        if ($chosen === null) {
            throw UnreadableFile::isNoWorkbook($name, 'it has no sheet');
        }
        $hidden = count(array_filter($sheets, static fn(array $sheet): bool => $sheet['hidden']));
        $found = self::at($path, $name, PartFormat::workbook($kind, (string) $chosen, $sheets), $surveys);

        return new FoundPart($found->format, [
            'kind' => $kind->noun(),
            'sheet' => count($sheets) === 1 ? 'its only sheet' : sprintf(
                '%s of %d sheets%s',
                $chosen === array_key_first($surveys) ? 'the first' : 'the one with the largest table',
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
        [$sheets, $surveys] = self::look($path, $name, $format->kind);
        $surveys[$format->sheet] ??= SheetSurvey::of($path, $name, $format->kind, $format->sheet);

        return self::at($path, $name, PartFormat::workbook($format->kind, $format->sheet, $sheets), $surveys);
    }

    /**
     * @return array{list<array{name: string, hidden: bool}>, array<array-key, SheetSurvey>} all sheets, and what stands in those that can
     *     be meant, by their name
     *
     * @throws UnreadableFile
     */
    private static function look(string $path, string $name, PartKind $kind): array
    {
        $workbook = Workbook::open($path, $name, $kind);
        try {
            $sheets = $workbook->sheets();
            $visible = array_filter($sheets, static fn(array $sheet): bool => ! $sheet['hidden']);
            $surveys = [];
            foreach (array_slice($visible === [] ? $sheets : $visible, 0, self::MOST_SHEETS) as $sheet) {
                $surveys[$sheet['name']] = SheetSurvey::in($workbook, $path, $kind, $sheet['name']);
            }

            return [$sheets, $surveys];
        } finally {
            $workbook->close();
        }
    }

    /** @param array<array-key, SheetSurvey> $surveys by the name of the sheet, that of the format among them */
    private static function at(string $path, string $name, PartFormat $format, array $surveys): FoundPart
    {
        $survey = $surveys[$format->sheet];
        [$headerRow, $why] = $survey->headerRow();
        $names = $survey->namesIn($headerRow);
        $sheets = array_map(
            static fn(array $sheet): array => $sheet['name'] !== $format->sheet &&
                isset($surveys[$sheet['name']]) &&
                $surveys[$sheet['name']]->hasNames($names)
                    ? [...$sheet, 'alike' => true]
                    : $sheet,
            $format->sheets,
        );
        [$below, $which] = $survey->below($name, $headerRow);

        return new FoundPart(
            PartFormat::workbook(
                $format->kind,
                $format->sheet,
                $sheets,
                new SheetPlace($headerRow, $below, $survey->skipLeft()),
            ),
            ['headerRow' => $why, ...$below === 0 ? [] : ['skipBelow' => $which]],
        );
    }
}
