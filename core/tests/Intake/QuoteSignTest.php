<?php

declare(strict_types=1);

namespace NineTally\Tests\Intake;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Intake\Delimited\DelimitedFormat;
use NineTally\Core\Intake\Delimited\DelimitedReader;
use NineTally\Core\Intake\Delimited\LineEnds;
use NineTally\Core\Intake\Delimited\QuoteSign;
use NineTally\Core\Intake\Encoding;
use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Row;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Cells between single quotes are read as those between double ones are, and what is no quote stays in its value. */
final class QuoteSignTest extends TestCase
{
    use TemporaryFiles;

    #[DataProvider('encodings')]
    public function test_a_table_is_the_same_between_either_quotes(Encoding $encoding): void
    {
        mt_srand(9);
        $table = [['berth', "keeper's", 'a "remark"']];
        for ($row = 0; $row < 400; $row++) {
            $table[] = array_map(
                static fn(): string => implode('', array_map(
                    static fn(): string => ["'", '"', ',', "\n", "\r\n", 'K', 'ü', ' '][mt_rand(0, 7)],
                    range(0, mt_rand(0, 5)),
                )),
                [0, 1, 2],
            );
        }
        foreach (QuoteSign::cases() as $quote) {
            $sign = $quote->sign();
            $text = implode("\n", array_map(
                static fn(array $cells): string => implode(',', array_map(
                    static fn(string $cell): string => $sign.str_replace($sign, $sign.$sign, $cell).$sign,
                    $cells,
                )),
                $table,
            ))."\n";
            $path = $this->file(mb_convert_encoding($text, $encoding->value, 'UTF-8'), "{$quote->value}.csv");
            $format = new DelimitedFormat(',', LineEnds::Lf, encoding: $encoding, quote: $quote);
            $reader = new DelimitedReader($path, 'berths.csv', $format);
            $rows = [];
            foreach ($reader->ranges(2_000) as $range) {
                foreach ($reader->batches($range) as $batch) {
                    $rows[] = $batch instanceof Batch ? $batch->rows : 'refused';
                }
            }

            self::assertSame($table[0], $reader->columns->names);
            self::assertSame(
                implode(
                    Batch::ROW_END,
                    array_map(static fn(array $cells): string => implode(Batch::CELL_END, $cells), array_slice($table, 1)),
                ),
                implode(Batch::ROW_END, $rows),
            );
        }
    }

    /** @return iterable<string, array{Encoding}> */
    public static function encodings(): iterable
    {
        yield 'one byte and more' => [Encoding::Utf8];
        yield 'two bytes' => [Encoding::Utf16LittleEndian];
    }

    public function test_a_refused_record_is_shown_as_it_was_written(): void
    {
        $path = $this->file("berth,keeper\n'B1','O''Neill \"Red\"'\n'B2','b'c\n", 'berths.csv');
        $reader = new DelimitedReader($path, 'berths.csv', new DelimitedFormat(',', LineEnds::Lf, quote: QuoteSign::Single));
        [$row, $refused] = iterator_to_array($reader->records(), false);

        self::assertTrue($row instanceof Row && $refused instanceof RefusedRecord);
        self::assertSame(['B1', 'O\'Neill "Red"'], $row->cells);
        self::assertSame("'B2','b'c", $refused->raw);
    }

    /** @return iterable<string, array{string, QuoteSign}> */
    public static function tables(): iterable
    {
        $rows = static fn(string $cell): string => "berth,keeper,fee\n".implode('', array_map(
            static fn(int $number): string => sprintf("B{$number},{$cell},10\n", $number),
            range(1, 40),
        ));
        yield 'every keeper between them' => [$rows("'Holm'"), QuoteSign::Single];
        yield 'one cell that holds a delimiter' => [$rows('Holm').'B41,\'Holm, A\',10'."\n", QuoteSign::Single];
        yield 'names that begin with one' => [$rows("'t Hoen"), QuoteSign::Double];
        yield 'a nickname now and then' => [$rows('Holm')."B41,'Red',10\n", QuoteSign::Double];
        yield 'beside double ones' => [$rows("'Holm'").'B41,"Holm, A",10'."\n", QuoteSign::Double];
        yield 'within names' => [$rows("O'Neill"), QuoteSign::Double];
    }

    #[DataProvider('tables')]
    public function test_single_ones_are_quotes_where_they_keep_cells_together(string $text, QuoteSign $expected): void
    {
        $format = (new ReaderCatalogue)->find($this->file($text, 'berths.csv'), 'berths.csv')->format;

        self::assertSame($expected, $format->delimited?->quote);
        self::assertSame($format->toArray(), $format::fromArray($format->toArray())->toArray());
    }
}
