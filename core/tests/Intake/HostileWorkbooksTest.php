<?php

declare(strict_types=1);

namespace NineTally\Tests\Intake;

use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\Intake\UnreadableFile;
use NineTally\Core\Row\Row;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\TestCase;

/** Workbooks and archives that are huge, damaged or locked. */
final class HostileWorkbooksTest extends TestCase
{
    use Workbooks;

    use TemporaryFiles;

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
        $rows = iterator_count($this->openWorkbook($path)->records());

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

    /** Its dates would be read as numbers, and nothing would say so. */
    public function test_a_workbook_with_a_damaged_style_is_refused(): void
    {
        $path = $this->workbook(self::HEADER.'<row r="2"><c r="A2" s="1"><v>40014</v></c></row>');
        $archive = new \ZipArchive;
        $archive->open($path);
        $archive->setCompressionName('xl/styles.xml', \ZipArchive::CM_STORE);
        $archive->close();
        self::assertSame(['2 2009-07-20||'], $this->rows($path));
        file_put_contents($path, str_replace('numFmtId="14"', 'numFmtId="74"', (string) file_get_contents($path)));

        $this->expectException(UnreadableFile::class);
        $this->expectExceptionMessage('is damaged');
        $this->rows($path);
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
}
