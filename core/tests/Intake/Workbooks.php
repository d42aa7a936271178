<?php

declare(strict_types=1);

namespace NineTally\Tests\Intake;

use NineTally\Core\Intake\Reader;
use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\Row\Row;

/** What WorkbookReaderTest and HostileWorkbooksTest have in common. */
trait Workbooks
{
    private const HEADER = '<row r="1"><c r="A1" t="inlineStr"><is><t>basin</t></is></c><c r="B1" '.
        't="inlineStr"><is><t>fee</t></is></c><c r="C1" t="inlineStr"><is><t>paid</t></is></c></row>';

    /** @return list<string> */
    private function rows(string $path): array
    {
        return $this->read($this->openWorkbook($path));
    }

    /** @return list<string> */
    private function read(Reader $reader): array
    {
        return array_map(
            static fn(mixed $row): string => $row instanceof Row ? "{$row->line} ".implode('|', $row->cells) : 'refused',
            iterator_to_array($reader->records(), false),
        );
    }

    private function openWorkbook(string $path): Reader
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
