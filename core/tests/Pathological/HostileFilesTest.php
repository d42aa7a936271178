<?php

declare(strict_types=1);

namespace NineTally\Tests\Pathological;

use NineTally\Core\Intake\Delimited\DelimitedFormat;
use NineTally\Core\Intake\Delimited\DelimitedReader;
use NineTally\Core\Intake\Delimited\LineEnds;
use NineTally\Core\Intake\Encoding;
use NineTally\Core\Intake\PartFormat;
use NineTally\Core\Intake\PartKind;
use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\Intake\SheetPlace;
use NineTally\Core\Intake\UnreadableFile;
use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Preparation\UnusableStep;
use NineTally\Core\Row\Row;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;

/** Files that nobody should have handed over: each is refused with what, where and what to do, in little time and memory. */
final class HostileFilesTest extends TestCase
{
    use TemporaryFiles;

    private const MOST_MEMORY = 96 * 1024 * 1024;

    #[DataProvider('files')]
    public function test_it_is_refused(string $content, string $name, string $code, string $message): void
    {
        $path = $this->file($content, $name);
        unset($content);
        memory_reset_peak_usage();
        $before = memory_get_usage();
        try {
            foreach ((new ReaderCatalogue)->open($path, $name)->records() as $record) {
                continue;
            }
            self::fail('It was read to its end.');
        } catch (UnreadableFile $problem) {
            self::assertSame($code, $problem->code());
            self::assertStringContainsString($message, $problem->getMessage());
            self::assertStringContainsString("\"{$name}\"", $problem->getMessage());
        }
        self::assertLessThan(self::MOST_MEMORY, memory_get_peak_usage() - $before);
    }

    /** @return iterable<string, array{string, string, string, string}> */
    public static function files(): iterable
    {
        $packed = (string) gzencode("basin,berth\n".str_repeat("KB,1\n", 50_000));
        yield '20,000 columns' => [
            implode(',', range(1, 20_000))."\n",
            'wide.csv',
            'too-many-columns',
            '16,386 columns or more, and at most 16,384 are read',
        ];
        yield '20,000 properties' => [
            (string) json_encode(array_fill_keys(array_map(static fn(int $nth): string => "p{$nth}", range(1, 20_000)), '')),
            'wide.jsonl',
            'too-many-columns',
            'at most 16,384 are read',
        ];
        yield 'a truncated gzip' => [
            substr($packed, 0, intdiv(strlen($packed), 2)),
            'old.csv.gz',
            'broken-off',
            'breaks off in the middle',
        ];
        yield 'a picture under the name of a table' => [
            "\x89PNG\r\n\x1A\n".random_bytes(2_000),
            'moorings.csv',
            'not-delimited-text',
            'is a picture, which is not read',
        ];
        yield 'a workbook that breaks off' => ["PK\x03\x04".random_bytes(500), 'moorings.xlsx', 'broken-off', 'Pack it or copy it again'];
        yield 'a list that breaks off' => [
            '[{"basin": "KB"}, {"basin": "LM"',
            'moorings.json',
            'broken-off',
            'ends in the middle of what it holds',
        ];
        yield 'brackets in one another' => ['{"a":'.str_repeat('[', 20_000), 'deep.json', 'not-a-list-of-objects', 'no object in it'];
        yield 'lists before the list' => [
            '{"a":'.str_repeat('[', 300_000).'1'.str_repeat(']', 300_000).',"b":[{"c":1}]}',
            'deep.json',
            'not-a-list-of-objects',
            'deep',
        ];
        yield 'elements in one another' => [
            '<a>'.str_repeat('<b>', 200_000).str_repeat('</b>', 200_000).'</a>',
            'deep.xml',
            'unusable-xml',
            'more than 200 deep in one another',
        ];
        yield 'a gzip that bursts' => [
            (string) gzencode(str_repeat("a\n", 20_000_000), 9),
            'bomb.csv.gz',
            'too-large-unpacked',
            'it grows to more than 250 times its size',
        ];
        yield 'a header on a line that is skipped' => ["\n\n\n", 'blank.csv', 'no-header', 'every line is blank'];
    }

    public function test_a_text_without_an_end_is_passed_over_and_what_follows_is_read(): void
    {
        $long = '[{"basin": "KB"}, {"basin": "'.str_repeat('\\"x', 12 * 1024 * 1024).'"}, {"basin": "LM"}]';
        $path = $this->file($long, 'long.json');
        unset($long);
        memory_reset_peak_usage();
        $before = memory_get_usage();
        $cells = [];
        foreach ((new ReaderCatalogue(1024 * 1024))->open($path, 'long.json')->records() as $record) {
            $cells[] = $record instanceof Row ? $record->cells[0] : $record->reason->value;
        }

        self::assertSame(['KB', 'over-row-limit', 'LM'], $cells);
        self::assertLessThan(16 * 1024 * 1024, memory_get_peak_usage() - $before);
    }

    /** Whatever byte of a packed table is changed: it is refused, or every row is there. Never is a part of it read as if it were all. */
    #[TestWith([\ZipArchive::CM_STORE])]
    #[TestWith([\ZipArchive::CM_DEFLATE])]
    public function test_a_damaged_archive_is_never_read_as_if_it_were_whole(int $method): void
    {
        $table = "basin,berth,fee\n".implode('', array_map(static fn(int $berth): string => "KB,{$berth},12.50\n", range(1, 4_000)));
        $path = $this->folder().'/moorings.zip';
        $archive = new \ZipArchive;
        $archive->open($path, \ZipArchive::CREATE);
        $archive->addFromString('moorings.csv', $table);
        $archive->setCompressionName('moorings.csv', $method);
        $archive->close();
        $packed = (string) file_get_contents($path);
        $expected = sha1((string) json_encode($this->cells($path)));
        $refused = 0;
        for ($at = 40; $at < strlen($packed); $at += max(1, intdiv(strlen($packed), 60))) {
            file_put_contents($path, substr_replace($packed, chr(ord($packed[$at]) ^ 0x55), $at, 1));
            try {
                self::assertSame($expected, sha1((string) json_encode($this->cells($path))), "byte {$at}");
            } catch (UnreadableFile $problem) {
                self::assertStringContainsString('"moorings.zip"', $problem->getMessage());
                $refused++;
            }
        }

        self::assertGreaterThan(50, $refused);
    }

    /** @return list<list<string>> */
    private function cells(string $path): array
    {
        $cells = [];
        foreach ((new ReaderCatalogue)->open($path, 'moorings.zip')->records() as $record) {
            $cells[] = $record instanceof Row ? $record->cells : ['refused'];
        }

        return $cells;
    }

    public function test_more_lines_are_skipped_than_there_are(): void
    {
        $path = $this->file("basin,berth\nKB,1\n", 'short.csv');

        $this->expectException(UnreadableFile::class);
        $this->expectExceptionMessage('there are no 5 lines above it');
        new DelimitedReader($path, 'short.csv', new DelimitedFormat(',', LineEnds::Lf, skipAbove: 5));
    }

    public function test_the_column_of_part_labels_takes_no_name_that_is_there(): void
    {
        $reader = (new ReaderCatalogue)->open($this->file("basin,origin\nKB,x\n", 'a.csv'), 'a.csv');

        $this->expectException(UnusableStep::class);
        new PartStack([['reader' => $reader, 'label' => 'a']], 'origin');
    }

    public function test_how_a_part_is_read_is_written_down_and_read_again(): void
    {
        $delimited = PartFormat::delimited(new DelimitedFormat(';', LineEnds::Crlf, true, Encoding::Utf8, false, 3, 1));
        $workbook = PartFormat::workbook(
            PartKind::Ods,
            'Berths',
            [['name' => 'Berths', 'hidden' => true]],
            new SheetPlace(4),
        );

        foreach ([$delimited, $workbook, PartFormat::json(true), PartFormat::json(false)] as $format) {
            self::assertEquals($format, PartFormat::fromArray($format->toArray()));
        }
        // What was kept before there were kinds, headers and lines to skip.
        self::assertEquals(
            PartFormat::delimited(new DelimitedFormat(',', LineEnds::Lf)),
            PartFormat::fromArray(['delimiter' => 'comma', 'lineEnds' => 'LF', 'byteOrderMark' => false]),
        );
        // A mark of one encoding is no mark of another.
        self::assertSame(0, $delimited->with(['encoding' => 'Windows-1252'])->delimited?->markBytes());
        $corrected = $workbook->with(['headerRow' => 7]);
        self::assertSame(['Berths', 7], [$corrected->sheet, $corrected->place->headerRow]);
    }
}
