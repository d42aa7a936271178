<?php

declare(strict_types=1);

namespace NineTally\Tests\Intake;

use NineTally\Core\Intake\Delimited\DelimitedFormat;
use NineTally\Core\Intake\Delimited\DelimitedReader;
use NineTally\Core\Intake\Delimited\LineEnds;
use NineTally\Core\Intake\Encoding;
use NineTally\Core\Row\RefusalReason;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Row;
use NineTally\Core\Wording\Sentences;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class DelimitedReaderTest extends TestCase
{
    use TemporaryFiles;

    /** @param list<list<string>> $rows */
    #[DataProvider('corners')]
    public function test_reads_the_corners_of_rfc_4180(string $content, array $rows): void
    {
        self::assertSame($rows, array_map(static fn(Row $row): array => $row->cells, $this->rows($this->reader($content))));
    }

    /** @return iterable<string, array{string, list<list<string>>}> */
    public static function corners(): iterable
    {
        yield 'a delimiter inside quotes' => ["basin,berth\nKB,\"12,5\"\n", [['KB', '12,5']]];
        yield 'a doubled quote' => ["basin,name\nKB,\"the \"\"Heron\"\"\"\n", [['KB', 'the "Heron"']]];
        yield 'a line end inside quotes' => ["basin,note\nKB,\"loose\nasked\"\nLM,x\n", [['KB', "loose\nasked"], ['LM', 'x']]];
        yield 'both kinds of line end inside quotes are kept' => ["basin,note\r\nKB,\"a\r\nb\nc\"\r\n", [['KB', "a\r\nb\nc"]]];
        yield 'empty quotes' => ["basin,note\nKB,\"\"\n", [['KB', '']]];
        yield 'a quote inside an unquoted cell is a letter' => ["basin,size\nKB,12\" hull\n", [['KB', '12" hull']]];
        yield 'no line end after the last record' => ["basin,berth\nKB,014", [['KB', '014']]];
        yield 'a line with nothing on it is no record' => ["basin,berth\n\nKB,1\n\n", [['KB', '1']]];
        yield 'a record of delimiters only is a row' => ["basin,berth\n,\n", [['', '']]];
        yield 'a blank line inside quotes is part of the cell' => ["basin,note\nKB,\"a\n\nb\"\n", [['KB', "a\n\nb"]]];
        yield 'a byte-order mark is not part of the first name' => ["\xEF\xBB\xBFbasin,berth\nKB,1\n", [['KB', '1']]];
        yield 'line ends of CR alone' => ["basin,berth\rKB,1\rLM,2\r", [['KB', '1'], ['LM', '2']]];
        yield 'white space is kept' => ["basin,berth\n KB ,\t1\n", [[' KB ', "\t1"]]];
        yield 'one column, a blank value in quotes' => ["basin\nKB\n\"\"\n", [['KB'], ['']]];
        yield 'letters beyond ASCII' => ["holder,berth\nEzekiel Thornøy,1\n", [['Ezekiel Thornøy', '1']]];
        yield 'header only' => ["basin,berth\n", []];
    }

    #[DataProvider('badRecords')]
    public function test_refuses_a_record_that_is_no_row_and_reads_on(string $record, RefusalReason $reason, string $sentence): void
    {
        $found = iterator_to_array($this->reader("basin,berth,note\nKB,1,Thornøy\n{$record}\nLM,2,y\n")->records(), false);

        self::assertCount(3, $found);
        $refused = $found[1];
        self::assertInstanceOf(RefusedRecord::class, $refused);
        self::assertSame([3, $reason, $sentence, $record], [$refused->line, $refused->reason, $this->said($refused), $refused->raw]);
        self::assertInstanceOf(Row::class, $found[2]);
        self::assertSame(4, $found[2]->line);
    }

    /** @return iterable<string, array{string, RefusalReason, string}> */
    public static function badRecords(): iterable
    {
        yield 'too few cells' => ['KB,1', RefusalReason::WrongNumberOfCells, '2 cells where the header has 3'];
        yield 'too many cells' => ['KB,1,x,y', RefusalReason::WrongNumberOfCells, '4 cells where the header has 3'];
        yield 'bytes of another encoding' => ["KB,1,Thorn\xF8y", RefusalReason::UndecodableBytes, 'bytes that are not UTF-8 text'];
        yield 'a zero byte' => ["KB,1,a\0b", RefusalReason::UndecodableBytes, 'bytes that are not UTF-8 text'];
        yield 'text after a closing quote' => ['KB,1,"Heron" II', RefusalReason::TextAfterQuote, 'text follows a closing quote'];
    }

    public function test_says_on_which_line_a_record_begins_when_cells_run_over_lines(): void
    {
        $rows = $this->rows($this->reader("basin,note\nKB,\"one\ntwo\nthree\"\nLM,x\n"));

        self::assertSame([2, 5], [$rows[0]->line, $rows[1]->line]);
    }

    #[DataProvider('overLimit')]
    public function test_refuses_a_record_over_the_row_limit_and_reads_on(string $long): void
    {
        $found = iterator_to_array($this->reader("basin,note\nKB,{$long}\nLM,short\n", rowLimit: 100_000)->records(), false);

        self::assertInstanceOf(RefusedRecord::class, $found[0]);
        self::assertSame([RefusalReason::OverRowLimit, 2], [$found[0]->reason, $found[0]->line]);
        self::assertSame(RefusedRecord::RAW_LIMIT, strlen($found[0]->raw));
        self::assertInstanceOf(Row::class, $found[1]);
        self::assertSame(['LM', 'short'], $found[1]->cells);
    }

    /** @return iterable<string, array{string}> */
    public static function overLimit(): iterable
    {
        yield 'on one line, longer than a block' => [str_repeat('x', 400_000)];
        yield 'on one line, within a block' => [str_repeat('x', 110_000)];
        yield 'quoted, over many lines' => ['"'.str_repeat("Quay wall weeps\n", 20_000).'"'];
        yield 'quoted, on one line, with doubled quotes' => ['"'.str_repeat('a""b,', 60_000).'"'];
    }

    public function test_names_the_line_on_which_a_quote_was_left_open(): void
    {
        $reader = $this->reader("basin,note\nKB,fine\nLM,\"never closed\nNQ,x\n");

        [$row, $refused] = iterator_to_array($reader->records(), false);
        self::assertInstanceOf(Row::class, $row);
        self::assertInstanceOf(RefusedRecord::class, $refused);
        self::assertSame([3, RefusalReason::QuoteLeftOpen, "LM,\"never closed\nNQ,x\n"], [$refused->line, $refused->reason, $refused->raw]);
        self::assertStringContainsString('all 2 lines to the end of the file are held in it', $this->said($refused));
    }

    public function test_says_over_how_many_lines_a_quote_that_is_closed_too_late_holds_a_record(): void
    {
        $found = iterator_to_array($this->reader("basin,note\nKB,\"open\nLM,x\nNQ,\"fine\"\nPW,y\n")->records(), false);

        self::assertInstanceOf(RefusedRecord::class, $found[0]);
        self::assertSame(
            [2, 'text follows a closing quote, in a record that a quote holds together over 3 lines'],
            [$found[0]->line, $this->said($found[0])],
        );
        self::assertInstanceOf(Row::class, $found[1]);
        self::assertSame([5, ['PW', 'y']], [$found[1]->line, $found[1]->cells]);
    }

    public function test_reads_the_same_whatever_falls_on_the_edge_of_a_block(): void
    {
        // Records of 13 to 37 bytes, some quoted over lines, over several blocks: every kind of edge occurs.
        $expected = [];
        $content = "basin,note\n";
        for ($number = 0; $number < 20_000; $number++) {
            $note = $number % 3 === 0 ? "loose\r\nasked \"{$number}\"" : str_repeat('ø', $number % 13);
            $expected[] = ["B{$number}", $note];
            $content .=
                "B{$number},".
                ($number % 3 === 0 ? '"'.str_replace('"', '""', $note).'"' : $note).
                ["\n", "\r\n", "\n", "\r"][$number % 4];
        }
        $reader = new DelimitedReader($this->file($content), 'berths.csv', new DelimitedFormat(',', LineEnds::Lf));

        self::assertSame($expected, array_map(static fn(Row $row): array => $row->cells, $this->rows($reader)));
        // Those within quotes belong to their cells.
        self::assertSame('LF (10,001) and CR LF (5,000) and CR (5,000)', $reader->lineEnds->inWords());
        $this->rows($reader);
        self::assertSame(['LF' => 10_001, 'CRLF' => 5_000, 'CR' => 5_000], $reader->lineEnds->toArray());
    }

    public function test_each_record_ends_as_it_stands_and_inside_quotes_a_line_end_belongs_to_the_cell(): void
    {
        $content = "basin,berth\rKB,1\r\nLM,\"2\rx\r\ny\nz\"\rNQ,3\n\r\nPW,4\r";
        foreach (LineEnds::cases() as $declared) {
            $rows = $this->rows(new DelimitedReader($this->file($content), 'berths.csv', new DelimitedFormat(',', $declared)));
            self::assertSame(
                [[2, 'KB', '1'], [3, 'LM', "2\rx\r\ny\nz"], [7, 'NQ', '3'], [9, 'PW', '4']],
                array_map(static fn(Row $row): array => [$row->line, ...$row->cells], $rows),
                $declared->value,
            );
        }
    }

    public function test_calls_a_column_without_a_name_by_its_place(): void
    {
        self::assertSame(['basin', 'column 2', 'berth'], $this->reader("basin,,berth\nKB,x,1\n")->columns->names);
    }

    public function test_shows_undecodable_bytes_by_their_value(): void
    {
        $found = iterator_to_array($this->reader("basin,holder\nKB,Thornøy\nLM,Thorn\xF8y\n")->records(), false);

        self::assertInstanceOf(RefusedRecord::class, $found[1]);
        self::assertSame('LM,Thorn\xf8y', $found[1]->readableRaw());
    }

    /** @return list<Row> */
    private function rows(DelimitedReader $reader): array
    {
        $rows = [];
        foreach ($reader->records() as $record) {
            self::assertInstanceOf(Row::class, $record);
            $rows[] = $record;
        }

        return $rows;
    }

    /**
     * Law: packed or in two bytes a letter, a text has the rows and lines that it has plain, also when it is longer than what is held of
     * it.
     */
    public function test_lines_around_a_text_are_skipped_however_it_is_packed_or_written(): void
    {
        $rows = implode("\r\n", array_map(static fn(int $berth): string => "KB,{$berth},Thornøy", range(1, 150_000)));
        $text = "Printed by the old register\r\n\r\nbasin,berth,holder\r\n{$rows}\r\nTRL,150000\r\nend of the list\r\n\r\n";
        $read = fn(string $bytes, Encoding $encoding, bool $hasMark): array => array_map(
            static fn(Row|RefusedRecord $record): array => $record instanceof Row
                ? [$record->line, ...$record->cells]
                : [$record->line, $record->raw],
            iterator_to_array(
                (new DelimitedReader(
                    $this->file($bytes, 'around'),
                    'x.csv',
                    new DelimitedFormat(',', LineEnds::Crlf, $hasMark, $encoding, skipAbove: 2, skipBelow: 2),
                ))->records(),
                false,
            ),
        );
        $plain = $read($text, Encoding::Utf8, false);

        self::assertCount(150_000, $plain);
        self::assertSame([[4, 'KB', '1', 'Thornøy'], [150_003, 'KB', '150000', 'Thornøy']], [$plain[0], $plain[149_999]]);
        self::assertSame($plain, $read((string) gzencode($text), Encoding::Utf8, false), 'packed');
        self::assertSame(
            $plain,
            $read("\xFF\xFE".mb_convert_encoding($text, 'UTF-16LE', 'UTF-8'), Encoding::Utf16LittleEndian, true),
            'in two bytes a letter',
        );
        $this->expectExceptionMessage('there are no 2 lines above it');
        $read((string) gzencode('basin,berth,holder'), Encoding::Utf8, false);
    }

    public function test_lines_above_and_below_are_skipped_and_a_missing_header_is_no_row(): void
    {
        $path = $this->file("Old register, April\nprinted by mjw\nKB,1\nKB,\"2\n3\"\nrows,2\n", 'printed.csv');
        $reader = new DelimitedReader(
            $path,
            'printed.csv',
            new DelimitedFormat(',', LineEnds::Lf, hasHeader: false, skipAbove: 2, skipBelow: 1),
        );

        self::assertSame(['column 1', 'column 2'], $reader->columns->names);
        self::assertSame(
            [[3, ['KB', '1']], [4, ['KB', "2\n3"]]],
            array_map(
                static fn(mixed $row): array => $row instanceof Row ? [$row->line, $row->cells] : [],
                iterator_to_array($reader->records(), false),
            ),
        );
    }

    private function said(RefusedRecord $refused): string
    {
        return (new Sentences)->refusal($refused->reason, $refused->facts);
    }
}
