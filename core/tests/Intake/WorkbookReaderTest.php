<?php

declare(strict_types=1);

namespace NineTally\Tests\Intake;

use NineTally\Core\Intake\PartKind;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\Intake\Workbooks\SheetSurvey;
use NineTally\Tests\TemporaryFiles;
use OpenSpout\Writer\Common\Creator\WriterEntityFactory;
use PHPUnit\Framework\TestCase;

/** Workbooks as they come: sheets, real dates, numbers, formulas, and archives that are made to do harm. */
final class WorkbookReaderTest extends TestCase
{
    use Workbooks;

    use TemporaryFiles;

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
        self::assertSame(2, (new ReaderCatalogue)->find($path, 'berths.xlsx')->format->place->headerRow);
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
        self::assertSame([1, 'the first row that is not blank'], [$found->format->place->headerRow, $found->reasons['headerRow']]);
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
            SheetSurvey::of($path, 'charges.ods', PartKind::Ods, 'Charges')->headerRow(),
        );
        self::assertSame(['basin', '2024 fee', '2024 paid', '2025 fee', '2025 paid'], $reader->columns()->names);
        self::assertSame(
            ['4 KB|12345678901234567.891|false|09:30:00|2024-04-01', '5 |12||a|b', '6 |1500|1E999999999||'],
            $this->read($reader),
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
}
