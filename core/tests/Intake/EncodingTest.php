<?php

declare(strict_types=1);

namespace NineTally\Tests\Intake;

use NineTally\Core\Intake\ByteRange;
use NineTally\Core\Intake\Delimited\DelimitedReader;
use NineTally\Core\Intake\Delimited\FormatDetection;
use NineTally\Core\Intake\UnreadableFile;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Row;
use NineTally\Core\Tally\TallySettings;
use NineTally\Tests\Tally\Tallied;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** One register, however its bytes were written. */
final class EncodingTest extends TestCase
{
    use Tallied;

    private const TEXT = "basin;holder\r\nKB;Ezekiel Thornøy – “Zoë”\r\nLM;\"Ladder\r\nloose\"\r\n";

    #[DataProvider('writings')]
    public function test_reads_the_same_rows(string $bytes, string $because): void
    {
        $path = $this->file($bytes, 'register');

        self::assertSame($because, (new FormatDetection)->find($path, 'register')->reasons['encoding']);
        self::assertEquals(
            [new Row(2, ['KB', 'Ezekiel Thornøy – “Zoë”']), new Row(3, ['LM', "Ladder\r\nloose"])],
            iterator_to_array(DelimitedReader::detecting($path, 'register')->records(), false),
        );
    }

    /** @return iterable<string, array{string, string}> */
    public static function writings(): iterable
    {
        yield 'UTF-8' => [self::TEXT, 'UTF-8'];
        yield 'UTF-16, little end first, with its mark' => [
            "\xFF\xFE".mb_convert_encoding(self::TEXT, 'UTF-16LE', 'UTF-8'),
            'UTF-16 with a byte-order mark',
        ];
        yield 'UTF-16, big end first' => [
            "\xFE\xFF".mb_convert_encoding(self::TEXT, 'UTF-16BE', 'UTF-8'),
            'UTF-16 with a byte-order mark',
        ];
        yield 'UTF-16 without a mark' => [mb_convert_encoding(self::TEXT, 'UTF-16LE', 'UTF-8'), 'UTF-16: every other byte is zero'];
        yield 'Windows-1252' => [
            mb_convert_encoding(self::TEXT, 'Windows-1252', 'UTF-8'),
            'Windows-1252: byte 0xF8 on line 2 is not UTF-8',
        ];
        yield 'packed' => [(string) gzencode(self::TEXT), 'UTF-8'];
        yield 'packed in two runs' => [gzencode(substr(self::TEXT, 0, 30)).gzencode(substr(self::TEXT, 30)), 'UTF-8'];
    }

    public function test_a_letter_that_cannot_be_decoded_refuses_its_record_alone(): void
    {
        $text = mb_convert_encoding("basin,holder\nKB,x\nLM,y\nNQ,z\n", 'UTF-16LE', 'UTF-8');
        $found = iterator_to_array(
            DelimitedReader::detecting($this->file("\xFF\xFE".str_replace("y\0", "\x00\xD8", $text), 'x'), 'x')->records(),
            false,
        );

        self::assertInstanceOf(RefusedRecord::class, $found[1]);
        self::assertSame(['encoding' => 'UTF-16LE'], $found[1]->facts);
        self::assertEquals(new Row(4, ['NQ', 'z']), $found[2]);
    }

    public function test_a_packed_file_that_breaks_off_is_told_and_not_taken_for_short(): void
    {
        $packed = (string) gzencode(
            "basin,holder\n".implode('', array_map(static fn(int $row): string => 'KB,'.md5((string) $row)."\n", range(1, 20_000))),
        );
        $reader = DelimitedReader::detecting($this->file(substr($packed, 0, -2_000), 'x'), 'old.csv.gz');

        $this->expectException(UnreadableFile::class);
        $this->expectExceptionMessage('"old.csv.gz" breaks off');
        iterator_to_array($reader->records(), false);
    }

    public function test_ranges_of_a_file_hold_its_rows_once_each_with_their_lines(): void
    {
        $text =
            "basin,note\n".
            implode('', array_map(static fn(int $row): string => "KB {$row},\"one\ntwo, \"\"three\"\"\"\n", range(1, 500)));
        $reader = $this->reader($text, 'x');
        $ranges = $reader->ranges(2_000);
        $rows = 0;
        foreach ($ranges as $range) {
            foreach ($reader->batches($range) as $batch) {
                $rows += $batch instanceof RefusedRecord ? 1_000 : substr_count($batch->rows, "\xFE") + 1;
            }
        }

        self::assertGreaterThan(5, count($ranges));
        self::assertSame(500, $rows);
        self::assertEquals(new ByteRange(0, $ranges[1]->start), $ranges[0]);
    }

    /** A quote in the middle of a value spoils the counting of quotes by which a file is divided: then it is read in one piece. */
    public function test_stray_quotes_change_nothing_in_what_is_found(): void
    {
        $rows = array_map(static fn(int $row): string => "{$row},".($row % 40 === 7 ? '12" hull' : "\"a\nb\"")."\n", range(1, 400));
        [$old, $new] = ["berth,note\n".implode('', $rows), "berth,note\n".implode('', array_slice($rows, 0, 390))];
        $whole = $this->tally($old, $new, ['berth']);
        $found = $this->lines();
        $this->tallyOf(
            \NineTally\Core\Plan\Plan::pairing($this->reader($old, 'old.csv')->columns, $this->reader($new, 'new.csv')->columns, ['berth']),
            $this->reader($old, 'old.csv'),
            $this->reader($new, 'new.csv'),
            settings: new TallySettings(rangeBytes: 500),
        );

        self::assertSame(10, $whole->source->unmatched);
        self::assertSame($found, $this->lines());
    }
}
