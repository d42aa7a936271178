<?php

declare(strict_types=1);

namespace NineTally\Tests\Intake;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Intake\Delimited\BlockReading;
use NineTally\Core\Intake\Delimited\DelimitedFormat;
use NineTally\Core\Intake\Delimited\LineEndCount;
use NineTally\Core\Intake\Delimited\LineEnds;
use NineTally\Core\Intake\Delimited\RecordAssembly;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;

/** The fast way to read and the careful one: what the first reads, the second must read alike. */
final class BlockReadingTest extends TestCase
{
    private const PIECES = [
        'a',
        'b c',
        'ø',
        '',
        '"',
        '""',
        ',',
        ';',
        "\n",
        "\r\n",
        "\r",
        '"x"',
        '"a,b"',
        "\"a\nb\"",
        '"a""b"',
        '""""',
        "\u{FEFF}",
        "\0",
        "\xF8",
    ];

    public function test_gives_the_rows_that_reading_line_by_line_gives(): void
    {
        $random = new Randomizer(new Mt19937(20_261_125));
        $read = 0;
        for ($round = 0; $round < 6_000; $round++) {
            $format = new DelimitedFormat([',', ';'][$round % 2], LineEnds::Lf);
            $width = $round % 4 + 1;
            $text = '';
            for ($row = $random->getInt(1, 3); $row > 0; $row--) {
                $cells = [];
                for ($cell = $random->getInt(1, 5) === 1 ? $random->getInt(1, 4) : $width; $cell > 0; $cell--) {
                    $cells[] =
                        $random->getInt(0, 3) > 0
                            ? 'x'
                            : self::PIECES[$random->getInt(0, count(self::PIECES) - 1)].self::PIECES[$random->getInt(0, 3)];
                }
                // Each record ends as it likes; the last one without its end.
                $text .= implode($format->delimiter, $cells).($row > 1 ? ["\n", "\r\n", "\r"][$random->getInt(0, 2)] : '');
            }
            $batch = (new BlockReading($format, $width, new LineEndCount))->read($text, 7);
            if ($batch !== null) {
                $read++;
                self::assertSame(
                    $this->carefully($text, $format, $width),
                    $this->rows($batch),
                    (string) json_encode($text, JSON_INVALID_UTF8_SUBSTITUTE),
                );
            }
        }
        self::assertGreaterThan(2_000, $read, 'Most blocks are not unusual.');
    }

    #[DataProvider('unusual')]
    public function test_leaves_what_is_unusual_to_the_careful_way(string $text): void
    {
        self::assertNull((new BlockReading(new DelimitedFormat(',', LineEnds::Lf), 2, new LineEndCount))->read($text, 1));
    }

    /** @return iterable<string, array{string}> */
    public static function unusual(): iterable
    {
        yield 'too few cells' => ["a,b\nc"];
        yield 'one too few and one too many, which add up' => ["a\nb,c,d"];
        yield 'a quote in the middle' => ["a,12\" hull\nb,c"];
        yield 'text after a quote' => ['a,"b"c'];
        yield 'a quote left open' => ["a,\"b\nc,d"];
        yield 'a blank line' => ["a,b\n\nc,d"];
        yield 'a blank line at the beginning' => ["\na,b"];
        yield 'bytes of another encoding' => ["a,\xF8"];
        yield 'bytes that are used to hide separators' => ["a,\xFD"];
        yield 'a zero byte' => ["a,\0"];
        yield 'half a surrogate' => ["a,\xED\xA0\x80"];
    }

    public function test_wide_rows_are_read_as_well(): void
    {
        $row = implode(',', range(1, 3_000));
        $reading = new BlockReading(new DelimitedFormat(',', LineEnds::Lf), 3_000, new LineEndCount);

        self::assertNotNull($reading->read("{$row}\n{$row}", 1));
        self::assertNull($reading->read("{$row}\n{$row},more", 1));
    }

    /** @return list<array{int, list<string>}>|null null when a record is refused */
    private function carefully(string $text, DelimitedFormat $format, int $width): ?array
    {
        $assembly = new RecordAssembly($format, 1_000_000, 6);
        $rows = [];
        foreach (LineEnds::split($text, true)[0] as [$line, $end]) {
            $record = $assembly->add($line, true, $end);
            if ($record === null) {
                continue;
            }
            if ($record[3] !== null || count($record[1]) !== $width) {
                return null;
            }
            $rows[] = [$record[0], $record[1]];
        }

        return $assembly->isQuoteOpen() ? null : $rows;
    }

    /** @return list<array{int, list<string>}> */
    private function rows(Batch $batch): array
    {
        $rows = [];
        $line = $batch->firstLine;
        foreach (explode(Batch::ROW_END, $batch->rows) as $row) {
            $rows[] = [$line, explode(Batch::CELL_END, $row)];
            $line += $batch->linesOf($row);
        }

        return $rows;
    }
}
