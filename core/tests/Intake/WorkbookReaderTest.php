<?php

declare(strict_types=1);

namespace NineTally\Tests\Intake;

use NineTally\Core\Intake\PartFormat;
use NineTally\Core\Intake\PartKind;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\Intake\UnreadableFile;
use NineTally\Core\Intake\Workbooks\WorkbookReader;
use NineTally\Core\Row\Row;
use NineTally\Tests\TemporaryFiles;
use OpenSpout\Writer\Common\Creator\WriterEntityFactory;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\TestCase;

/** Workbooks as they come: sheets, real dates, numbers, formulas, and archives that are made to do harm. */
final class WorkbookReaderTest extends TestCase
{
    use TemporaryFiles;

    private const HEADER = '<row r="1"><c r="A1" t="inlineStr"><is><t>basin</t></is></c><c r="B1" '.
        't="inlineStr"><is><t>fee</t></is></c><c r="C1" t="inlineStr"><is><t>paid</t></is></c></row>';

    public function test_dates_are_dates_numbers_are_exact_and_formulas_are_what_they_came_to(): void
    {
        $rows = '<row r="2"><c r="A2" t="inlineStr"><is><t>KB</t></is></c><c r="B2"><v>0.1</v></c><c r="C2" s="1"><v>45000</v></c></row>'
            .'<row r="4"><c r="A4" t="str"><f>"L"&amp;"M"</f><v>LM</v></c><c r="B4"><f>1+1</f><v>1234567890.12</v></c></row>'
            .'<row r="5"><c r="A5" t="b"><v>1</v></c><c r="B5"><v>12345678901234567</v></c><c r="C5" s="1"><v>45000.5</v></c></row>'
            .'<row r="6"><c r="A6" t="e"><f>NA()</f><v>#N/A</v></c><c r="B6" t="e"><v>#DIV/0!</v></c></row>';

        self::assertSame(
            ['2 KB|0.1|2023-03-15', '4 LM|1234567890.12|', '5 true|12345678901234567|2023-03-15T12:00:00', '6 #N/A|#DIV/0!|'],
            $this->rows($this->workbook(self::HEADER.$rows)),
        );
        self::assertSame(
            ['2 KB|0.1|2027-03-16', '4 LM|1234567890.12|', '5 true|12345678901234567|2027-03-16T12:00:00', '6 #N/A|#DIV/0!|'],
            $this->rows($this->workbook(self::HEADER.$rows, '<workbookPr date1904="1"/>')),
        );
    }

    public function test_merged_cells_of_the_header_name_every_column_that_they_cover(): void
    {
        $text = static fn(string $place, string $value): string => "<c r=\"{$place}\" t=\"inlineStr\"><is><t>{$value}</t></is></c>";
        // "basin" reaches down over two rows, "fee" is two columns wide; the rest is no concern of the header, nor is the word in a cell.
        $rows = "<row r=\"1\">{$text('A1', 'basin')}{$text('B1', 'what is due')}</row>".
            "<row r=\"2\">{$text('B2', 'fee')}{$text('D2', 'paid')}</row>".
            "<row r=\"3\">{$text('A3', 'KB')}{$text('B3', 'mergeCells')}{$text('C3', 'second')}{$text('D3', 'yes')}</row>";
        $path = $this->workbook(
            $rows,
            merged: '<mergeCells count="4"><mergeCell ref="A1:A2"/><mergeCell ref="B1:D1"/><mergeCell ref="B2:C2"/><mergeCell '.
                'ref="A7:D9"/></mergeCells>',
        );
        self::assertSame(2, (new ReaderCatalogue)->find($path, 'berths.xlsx')->format->headerRow);
        $reader = $this->openAt($path, 2);

        self::assertSame(['basin', 'fee', 'fee 2', 'paid'], $reader->columns()->names);
        self::assertSame(['3 KB|mergeCells|second|yes'], $this->read($reader));
    }

    public function test_hidden_sheets_are_named_and_the_first_visible_one_is_read(): void
    {
        $found = (new ReaderCatalogue)->find($this->workbook(self::HEADER, '', ' state="hidden"'), 'berths.xlsx');

        self::assertSame([['name' => 'Notes', 'hidden' => true], ['name' => 'Berths', 'hidden' => false]], $found->format->sheets);
        self::assertSame('Berths', $found->format->sheet);
        self::assertSame('the first of 2 sheets, 1 of them hidden', $found->reasons['sheet']);
        self::assertSame([1, 'the first row that is not blank'], [$found->format->headerRow, $found->reasons['headerRow']]);
    }

    public function test_an_open_document_is_read_too(): void
    {
        $path = $this->folder().'/berths.ods';
        $writer = WriterEntityFactory::createODSWriter();
        $writer->openToFile($path);
        $writer->addRow(WriterEntityFactory::createRowFromArray(['basin', 'berth', 'fee']));
        $writer->addRow(WriterEntityFactory::createRowFromArray(['KB', '014', 1412.6]));
        $writer->close();

        self::assertSame(['2 KB|014|1412.6'], $this->rows($path));
    }

    public function test_an_open_document_keeps_the_places_under_merged_cells_and_bends_nothing(): void
    {
        $cell = static fn(
            string $value,
        ): string => "<table:table-cell office:value-type=\"string\"><text:p>{$value}</text:p></table:table-cell>";
        $wide = static fn(string $value): string => "<table:table-cell table:number-columns-spanned=\"2\" ".
            "office:value-type=\"string\"><text:p>{$value}</text:p></table:table-cell><table:covered-table-cell/>";
        // Under a title over everything: "basin" reaches down over two rows, two seasons are two columns wide each.
        $path = $this->openDocument(
            '<table:table-row><table:table-cell table:number-columns-spanned="5" office:value-type="string"><text:p>Berth '.
                'charges</text:p></table:table-cell><table:covered-table-cell table:number-columns-repeated="4"/></table:table-row>'.
                "<table:table-row><table:table-cell table:number-rows-spanned=\"2\" ".
                "office:value-type=\"string\"><text:p>basin</text:p></table:table-cell>{$wide('2024')}{$wide('2025')}</table:table-row>".
                "<table:table-row><table:covered-table-cell/>{$cell('fee')}{$cell('paid')}{$cell('fee')}{$cell('paid')}</table:table-row>".
                "<table:table-row><table:table-cell table:number-rows-spanned=\"2\" ".
                "office:value-type=\"string\"><office:annotation><text:p>who wrote ".
                'this?</text:p></office:annotation><text:p>KB</text:p></table:table-cell>'.
                '<table:table-cell office:value-type="currency" office:currency="GBP" '.
                'office:value="12345678901234567.891"/><table:table-cell office:value-type="boolean" '.
                'office:boolean-value="false"/><table:table-cell office:value-type="time" '.
                'office:time-value="PT09H30M00S"/><table:table-cell office:value-type="date" '.
                'office:date-value="2024-04-01"/></table:table-row>'.
                "<table:table-row><table:covered-table-cell/>{$wide('12')}{$cell('a')}{$cell('b')}</table:table-row>".
                '<table:table-row><table:table-cell/><table:table-cell office:value-type="float" office:value="1.5E3"/><table:table-cell '.
                'office:value-type="float" office:value="1E999999999"/></table:table-row>',
        );
        $reader = $this->openAt($path, 3);
        self::assertSame(
            [3, 'the first row below titles, and names over several columns'],
            WorkbookReader::likelyHeaderRow($path, 'charges.ods', PartFormat::workbook(PartKind::Ods, 'Charges', 1, [])),
        );
        self::assertSame(['basin', '2024 fee', '2024 paid', '2025 fee', '2025 paid'], $reader->columns()->names);
        self::assertSame(
            ['4 KB|12345678901234567.891|false|09:30:00|2024-04-01', '5 |12||a|b', '6 |1500|1E999999999||'],
            $this->read($reader),
        );
    }

    public function test_a_large_workbook_is_read_in_little_memory(): void
    {
        $rows = implode(
            '',
            array_map(
                static fn(
                    int $row,
                ): string => "<row r=\"{$row}\"><c r=\"A{$row}\" t=\"inlineStr\"><is><t>holder of berth {$row}</t></is></c><c ".
                    "r=\"B{$row}\"><v>".
                    $row / 10 .
                    '</v></c></row>',
                range(1, 30_000),
            ),
        );
        $path = $this->workbook($rows);
        unset($rows);
        memory_reset_peak_usage();
        $before = memory_get_usage();
        $rows = iterator_count($this->reader($path)->records());

        self::assertSame(29_999, $rows);
        self::assertLessThan(4 * 1024 * 1024, memory_get_peak_usage() - $before);
    }

    public function test_an_archive_that_would_burst_is_not_unpacked(): void
    {
        $path = $this->workbook(self::HEADER.str_repeat(' ', 64 * 1024 * 1024));

        $this->expectException(UnreadableFile::class);
        $this->expectExceptionMessage('is not unpacked: "xl/worksheets/sheet2.xml" in it would grow to');
        (new ReaderCatalogue)->open($path, 'bomb.xlsx');
    }

    public function test_a_workbook_with_a_password_says_so(): void
    {
        $this->expectException(UnreadableFile::class);
        $this->expectExceptionMessage('locked with a password');
        (new ReaderCatalogue)->open($this->file("\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1".str_repeat("\0", 600), 'locked.xlsx'), 'locked.xlsx');
    }

    #[DataProvider('damaged')]
    public function test_a_damaged_workbook_is_refused_in_words(string $rows): void
    {
        try {
            $this->rows($this->workbook(self::HEADER.$rows));
            self::fail('It was read.');
        } catch (UnreadableFile $problem) {
            self::assertMatchesRegularExpression(
                '/^The workbook ".*" cannot be read: it is damaged, or was not written to its end/',
                $problem->getMessage(),
            );
        }
    }

    /** @return iterable<string, array{string}> */
    public static function damaged(): iterable
    {
        yield 'an element that is never closed' => ['<row r="2"><c r="A2" t="inlineStr"><is><t>KB</is></c></row>'];
        yield 'a cell that breaks off' => ['<row r="2"><c r="A2"><v>1</v></c><c r="B2" t="inl'];
        yield 'a word that stands nowhere' => ['<row r="2"><c r="A2" t="s"><v>7</v></c></row>'];
    }

    /** Every row up to the one that is named would be given as a blank one. */
    #[Group('long')]
    public function test_a_sheet_whose_rows_have_no_end_is_refused(): void
    {
        $this->expectException(UnreadableFile::class);
        $this->expectExceptionMessage('its sheet has no end');
        $this->rows($this->workbook(self::HEADER.'<row r="99999999999"><c r="A1"><v>1</v></c></row>'));
    }

    public function test_the_only_file_of_an_archive_is_read_and_several_are_told(): void
    {
        $rows = "basin,berth\nKB,1\nKB,\"2\n3\"\n";

        self::assertSame(['2 KB|1', "3 KB|2\n3"], $this->rows($this->archive(['__MACOSX/._rows.csv' => 'x', 'folder/rows.csv' => $rows])));
        self::assertSame(['1 KB|1'], $this->rows($this->archive(['rows.jsonl' => '{"basin": "KB", "berth": "1"}'])));
        $this->expectException(UnreadableFile::class);
        $this->expectExceptionMessage('is a zip archive with 2 files. Unpack it and deliver the files together');
        $this->rows($this->archive(['north.csv' => $rows, 'south.csv' => $rows]));
    }

    public function test_an_archive_with_a_password_or_with_more_files_than_anybody_delivers_says_so(): void
    {
        $many = array_fill_keys(array_map(static fn(int $nth): string => "{$nth}.csv", range(1, 10_001)), 'a');
        foreach (
            [
                'locked with a password' => $this->archive(['rows.csv' => "basin\nKB\n"], password: 'lock house'),
                'it holds 10,001 files' => $this->archive($many),
            ]
            as $message => $path
        ) {
            try {
                $this->rows($path);
                self::fail($message);
            } catch (UnreadableFile $refused) {
                self::assertStringContainsString($message, $refused->getMessage());
            }
        }
    }

    public function test_an_archive_of_text_that_would_burst_is_not_unpacked(): void
    {
        $this->expectException(UnreadableFile::class);
        $this->expectExceptionMessage('is not unpacked: "bomb.csv" in it would grow to 33,554,432 bytes');
        $this->rows($this->archive(['bomb.csv' => str_repeat('0', 32 * 1024 * 1024)]));
    }

    /** @param array<string, string> $files */
    private function archive(array $files, string $password = ''): string
    {
        $path = $this->folder().'/'.bin2hex(random_bytes(4)).'.zip';
        $archive = new \ZipArchive;
        $archive->open($path, \ZipArchive::CREATE);
        array_map($archive->addFromString(...), array_keys($files), $files);
        if ($password !== '') {
            array_map(
                static fn(string $file): bool => $archive->setEncryptionName($file, \ZipArchive::EM_AES_256, $password),
                array_keys($files),
            );
        }
        $archive->close();

        return $path;
    }

    /** @return list<string> */
    private function rows(string $path): array
    {
        return $this->read($this->reader($path));
    }

    /** @return list<string> */
    private function read(Reader $reader): array
    {
        return array_map(
            static fn(mixed $row): string => $row instanceof Row ? "{$row->line} ".implode('|', $row->cells) : 'refused',
            iterator_to_array($reader->records(), false),
        );
    }

    private function openAt(string $path, int $headerRow): Reader
    {
        $catalogue = new ReaderCatalogue;

        return $catalogue->openAs(
            $path,
            basename($path),
            $catalogue
                ->find($path, basename($path))
                ->format->with(['headerRow' => $headerRow] + (str_ends_with($path, '.ods') ? ['sheet' => 'Charges'] : [])),
        );
    }

    private function openDocument(string $rows): string
    {
        $path = $this->folder().'/'.bin2hex(random_bytes(4)).'.ods';
        $names = implode(
            ' ',
            array_map(static fn(string $name): string => "xmlns:{$name}=\"urn:oasis:names:tc:opendocument:xmlns:{$name}:1.0\"", [
                'office',
                'table',
                'text',
            ]),
        );
        $archive = new \ZipArchive;
        $archive->open($path, \ZipArchive::CREATE);
        $archive->addFromString('mimetype', 'application/vnd.oasis.opendocument.spreadsheet');
        $archive->addFromString(
            'content.xml',
            "<?xml version=\"1.0\"?><office:document-content ".
                "{$names}><office:automatic-styles/><office:body><office:spreadsheet><table:table ".
                "table:name=\"Notes\"><table:table-row/></table:table><table:table ".
                "table:name=\"Charges\">{$rows}</table:table></office:spreadsheet></office:body></office:document-content>",
        );
        $archive->close();

        return $path;
    }

    private function reader(string $path): Reader
    {
        return (new ReaderCatalogue)->open($path, basename($path));
    }

    private function workbook(string $rows, string $properties = '', string $stateOfFirst = ' state="hidden"', string $merged = ''): string
    {
        $path = $this->folder().'/'.bin2hex(random_bytes(4)).'.xlsx';
        $main = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
        $relations = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
        $sheet = static fn(
            string $rows,
        ): string => "<?xml version=\"1.0\"?><worksheet xmlns=\"{$main}\"><sheetData>{$rows}</sheetData>{$merged}</worksheet>";
        $archive = new \ZipArchive;
        $archive->open($path, \ZipArchive::CREATE);
        $archive->addFromString(
            '[Content_Types].xml',
            '<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Override '.
                'PartName="/xl/worksheets/sheet1.xml" '.
                'ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/></Types>',
        );
        $archive->addFromString(
            'xl/workbook.xml',
            "<?xml version=\"1.0\"?><workbook xmlns=\"{$main}\" xmlns:r=\"{$relations}\">{$properties}<sheets><sheet name=\"Notes\" ".
                "sheetId=\"1\"{$stateOfFirst} r:id=\"rId1\"/><sheet name=\"Berths\" sheetId=\"2\" r:id=\"rId2\"/></sheets></workbook>",
        );
        $archive->addFromString(
            'xl/_rels/workbook.xml.rels',
            "<?xml version=\"1.0\"?><Relationships xmlns=\"http://schemas.openxmlformats.org/package/2006/relationships\"><Relationship ".
                "Id=\"rId1\" Type=\"{$relations}/worksheet\" Target=\"worksheets/sheet1.xml\"/><Relationship Id=\"rId2\" ".
                "Type=\"{$relations}/worksheet\" Target=\"worksheets/sheet2.xml\"/><Relationship Id=\"rId3\" ".
                "Type=\"{$relations}/styles\" Target=\"styles.xml\"/></Relationships>",
        );
        $archive->addFromString(
            'xl/styles.xml',
            "<?xml version=\"1.0\"?><styleSheet xmlns=\"{$main}\"><cellXfs count=\"2\"><xf numFmtId=\"0\"/><xf numFmtId=\"14\" ".
                "applyNumberFormat=\"1\"/></cellXfs></styleSheet>",
        );
        $archive->addFromString(
            'xl/worksheets/sheet1.xml',
            $sheet('<row r="1"><c r="A1" t="inlineStr"><is><t>nothing here</t></is></c></row>'),
        );
        $archive->addFromString('xl/worksheets/sheet2.xml', $sheet($rows));
        $archive->close();

        return $path;
    }
}
