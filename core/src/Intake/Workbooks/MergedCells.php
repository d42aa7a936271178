<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Workbooks;

use NineTally\Core\Intake\PartKind;
use NineTally\Core\Row\Columns;

/**
 * The merged cells of a sheet (Office Open XML: ECMA-376, part 1, 18.3.1.55; Open Document 1.3, part 3, 9.1.4). Their value stands in
 * the first cell alone; the others are blank in the file, and would leave columns without a name.
 */
final readonly class MergedCells
{
    private const BLOCK_BYTES = 1_048_576;

    /** @param list<array{top: int, left: int, bottom: int, right: int}> $ranges rows from 1, columns from 0 */
    private function __construct(private array $ranges) {}

    /**
     * What cannot be found out is taken for no merged cells: the reader of the workbook says what is wrong with it.
     *
     * @param  int  $lastRow  down to which they are looked for, from 1
     */
    public static function of(string $path, PartKind $kind, string $sheet, int $lastRow): self
    {
        return new self($kind === PartKind::Ods ? self::ofOpenDocument($path, $sheet, $lastRow) : self::ofOfficeOpenXml($path, $sheet));
    }

    /** @return list<array{top: int, left: int, bottom: int, right: int}> */
    private static function ofOfficeOpenXml(string $path, string $sheet): array
    {
        $archive = new \ZipArchive;
        if ($archive->open($path, \ZipArchive::RDONLY) !== true) {
            return [];
        }
        try {
            $member = self::member($archive, $sheet);
            $file = $member === null ? false : $archive->getStream($member);

            return $file === false ? [] : self::ranges(self::element($file));
        } finally {
            $archive->close();
        }
    }

    /**
     * A header with the names that stand in merged cells: one that reaches down from above names its column, and one that is wider than
     * a column names the first so, the others with a number. Where names would repeat ("fee, paid, fee, paid"), those of the merged
     * cells above are put before them ("2024 fee").
     *
     * @param  array<int, list<string>>  $rows  up to that of the header, by their number
     * @return list<string>
     */
    public function header(array $rows, int $number): array
    {
        $header = $rows[$number] ?? [];
        foreach ($this->ranges as ['top' => $top, 'left' => $left, 'bottom' => $bottom, 'right' => $right]) {
            $name = $rows[$top][$left] ?? '';
            if ($top > $number || $bottom < $number || $name === '') {
                continue;
            }
            for ($column = $left; $column <= $right; $column++) {
                $header = array_pad($header, $column + 1, '');
                if ($header[$column] === '') {
                    $header[$column] = $column === $left ? $name : sprintf('%s %d', $name, $column - $left + 1);
                }
            }
        }

        return $this->toldApart($rows, $number, $header);
    }

    /**
     * Whether a row names groups of columns whose own names stand below: it has cells wider than a column, and either others reach down
     * into the row below, or names repeat there.
     *
     * @param  array<int, string>  $below  what is not blank in the row below
     */
    public function areNamesOver(int $row, array $below): bool
    {
        $isWide = $reachesDown = false;
        foreach ($this->ranges as ['top' => $top, 'left' => $left, 'bottom' => $bottom, 'right' => $right]) {
            $isWide = $isWide || $bottom === $row && $right > $left;
            $reachesDown = $reachesDown || $top <= $row && $bottom > $row;
        }

        return $isWide && ($reachesDown || count(array_unique($below)) < count($below) && preg_match('/\d/', implode('', $below)) !== 1);
    }

    /**
     * @param  array<int, list<string>>  $rows
     * @param  list<string>  $header
     * @return list<string>
     */
    private function toldApart(array $rows, int $number, array $header): array
    {
        for ($above = $number - 1; $above > 0; $above--) {
            $named = $header;
            foreach ($this->ranges as ['top' => $top, 'left' => $left, 'bottom' => $bottom, 'right' => $right]) {
                $group = $bottom === $above && $right > $left ? trim($rows[$top][$left] ?? '') : '';
                for ($column = $left; $group !== '' && $column <= $right && isset($named[$column]); $column++) {
                    $named[$column] = trim("{$group} {$header[$column]}");
                }
            }
            // A title over the whole table tells nothing apart.
            if (count(array_unique($named)) > count(array_unique($header))) {
                $header = $named;
            }
        }

        return $header;
    }

    /** @return list<array{top: int, left: int, bottom: int, right: int}> */
    private static function ofOpenDocument(string $path, string $sheet, int $lastRow): array
    {
        $reader = new \XMLReader;
        if (! @$reader->open("zip://{$path}#content.xml", null, LIBXML_NONET)) {
            return [];
        }
        $ranges = [];
        [$isInSheet, $row, $next, $column] = [false, 0, 1, 0];
        while (@$reader->read() && $row <= $lastRow) {
            if ($reader->name === 'table:table') {
                if ($isInSheet) {
                    break;
                }
                $isInSheet = $reader->getAttribute('table:name') === $sheet;
            } elseif ($isInSheet && $reader->nodeType === \XMLReader::ELEMENT && $reader->name === 'table:table-row') {
                [$row, $column] = [$next, 0];
                $next += max(1, (int) $reader->getAttribute('table:number-rows-repeated'));
            } elseif (
                $isInSheet &&
                $reader->nodeType === \XMLReader::ELEMENT &&
                in_array($reader->name, ['table:table-cell', 'table:covered-table-cell'], true)
            ) {
                [$wide, $high] = [
                    max(1, (int) $reader->getAttribute('table:number-columns-spanned')),
                    max(1, (int) $reader->getAttribute('table:number-rows-spanned')),
                ];
                if ($wide * $high > 1 && $row <= $lastRow) {
                    $ranges[] = [
                        'top' => $row,
                        'left' => $column,
                        'bottom' => $row + $high - 1,
                        'right' => min(Columns::MOST, $column + $wide - 1),
                    ];
                }
                $column += max(1, (int) $reader->getAttribute('table:number-columns-repeated'));
            }
        }
        $reader->close();

        return $ranges;
    }

    private static function member(\ZipArchive $archive, string $sheet): ?string
    {
        [$workbook, $relations] = [
            self::xml((string) $archive->getFromName('xl/workbook.xml')),
            self::xml((string) $archive->getFromName('xl/_rels/workbook.xml.rels')),
        ];
        foreach ($workbook?->xpath('//*[local-name()="sheet"]') ?: [] as $entry) {
            if ((string) $entry['name'] !== $sheet) {
                continue;
            }
            $id = (string) $entry->attributes('http://schemas.openxmlformats.org/officeDocument/2006/relationships')->id;
            foreach ($relations?->xpath('//*[local-name()="Relationship"]') ?: [] as $relation) {
                if ((string) $relation['Id'] === $id) {
                    $target = (string) $relation['Target'];

                    return str_starts_with($target, '/') ? substr($target, 1) : "xl/{$target}";
                }
            }
        }

        return null;
    }

    private static function xml(string $content): ?\SimpleXMLElement
    {
        // No document type: it could make the text grow, or fetch other files.
        return $content === '' || str_contains($content, '<!DOCTYPE')
            ? null
            : (@simplexml_load_string($content, options: LIBXML_NONET) ?:
                null);
    }

    /**
     * The element that lists merged cells. It stands behind all rows, which are looked through for its name and not parsed.
     *
     * @param  resource  $file
     */
    private static function element(mixed $file): string
    {
        $text = '';
        while (! feof($file)) {
            $block = @fread($file, self::BLOCK_BYTES);
            if ($block === false) {
                // Damaged: whoever reads the rows is told so.
                return '';
            }
            $text .= $block;
            if (preg_match('/<(?:\w+:)?mergeCells\b/', $text, $found, PREG_OFFSET_CAPTURE) === 1) {
                return substr($text, $found[0][1]).(string) @stream_get_contents($file, self::BLOCK_BYTES);
            }
            $text = substr($text, -64);
        }

        return '';
    }

    /** @return list<array{top: int, left: int, bottom: int, right: int}> */
    private static function ranges(string $element): array
    {
        preg_match_all(
            '/<(?:\w+:)?mergeCell\s[^>]*ref="\$?([A-Z]{1,3})\$?(\d{1,7}):\$?([A-Z]{1,3})\$?(\d{1,7})"/',
            $element,
            $found,
            PREG_SET_ORDER,
        );

        return array_map(
            static fn(array $range): array => [
                'top' => (int) $range[2],
                'left' => self::column($range[1]),
                'bottom' => (int) $range[4],
                'right' => min(Columns::MOST, self::column($range[3])),
            ],
            $found,
        );
    }

    /** @return int from 0 */
    private static function column(string $letters): int
    {
        return array_reduce(str_split($letters), static fn(int $number, string $letter): int => $number * 26 + ord($letter) - 64, 0) - 1;
    }
}
