<?php

declare(strict_types=1);

namespace NineTally\Tests\Intake;

use NineTally\Core\Intake\Delimited\FormatDetection;
use NineTally\Core\Intake\Delimited\LineEnds;
use NineTally\Core\Intake\UnreadableFile;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class FormatDetectionTest extends TestCase
{
    use TemporaryFiles;

    #[DataProvider('formats')]
    public function test_finds_how_a_file_is_written(string $content, string $delimiter, LineEnds $lineEnds, bool $mark): void
    {
        $format = (new FormatDetection)->find($this->file($content), 'berths.csv')->format;

        self::assertSame([$delimiter, $lineEnds, $mark], [$format->delimiterName(), $format->lineEnds, $format->hasByteOrderMark]);
    }

    /** @return iterable<string, array{string, string, LineEnds, bool}> */
    public static function formats(): iterable
    {
        yield 'commas' => ["basin,berth,fee\nKB,1,2\n", 'comma', LineEnds::Lf, false];
        yield 'semicolons with decimal commas' => ["basin;fee;length\nKB;12,50;7,5\nLM;9,00;8,1\n", 'semicolon', LineEnds::Lf, false];
        yield 'tabs, CR LF, byte-order mark' => ["\xEF\xBB\xBFbasin\tberth\r\nKB\t1\r\n", 'tab', LineEnds::Crlf, true];
        yield 'bars with commas in the text' => ["basin|holder\nKB|Lane, A\nLM|Moor, B, C\n", 'bar', LineEnds::Lf, false];
        yield 'one column' => ["berth\n014\n015\n", 'comma', LineEnds::Lf, false];
        yield 'delimiters in quotes do not count' => ["basin,note\nKB,\"a;b;c;d\"\nLM,\"e;f\"\n", 'comma', LineEnds::Lf, false];
    }

    public function test_says_why_it_chose_the_delimiter(): void
    {
        $reasons = (new FormatDetection)->find($this->file("basin;berth\nKB;1\nLM\n"), 'berths.csv')->reasons;

        self::assertSame('semicolon: 2 of the first 3 records have 2 cells', $reasons['delimiter']);
    }

    #[DataProvider('headers')]
    public function test_finds_the_row_of_names_and_says_where_there_is_none(
        string $content,
        int $skipAbove,
        bool $hasHeader,
        string $says,
    ): void {
        $found = (new FormatDetection)->find($this->file($content), 'berths.csv');

        self::assertSame([$skipAbove, $hasHeader], [$found->format->skipAbove, $found->format->hasHeader]);
        self::assertStringContainsString($says, $found->reasons['header']);
    }

    /** @return iterable<string, array{string, int, bool, string}> */
    public static function headers(): iterable
    {
        yield 'names' => ["basin;fee\nKB;1\nLM;2\n", 0, true, 'the first row names the columns'];
        yield 'values only' => [
            "1;5;7\n2;6;8\n3;7;9\n",
            0,
            false,
            'the first row is written like those below and is taken for values: say so below if it names the columns',
        ];
        yield 'values and texts' => ["KB;14;41.20\nLM;2;44\n", 0, false, 'is taken for values'];
        yield 'days' => ["KB,2027-03-31\nLM,2027-04-01\n", 0, false, 'is taken for values'];
        yield 'a title above' => [
            "Register of moorings\nprinted 31 March 2027\n\nid;name;fee\n1;a;2\n3;b;4\n",
            3,
            true,
            'below 3 lines that are no rows of the table',
        ];
        yield 'years that are names' => ["basin;2025;2026\nKB;1;2\nLM;3;4\n", 0, true, 'names'];
        yield 'months that are names' => ["basin;1;2;3\nKB;7;2;9\nLM;3;4;1\n", 0, true, 'names'];
        yield 'a name above values' => ["14;fee\n15;2.50\n16;3\n", 0, true, 'names'];
        yield 'names with a cell too few' => ["basin;berth;fee\nKB;1;2;\nLM;3;4;\n", 0, true, 'names'];
        yield 'a number above texts' => ["1;name\nKB;a\nLM;b\n", 0, true, 'names'];
    }

    #[DataProvider('notUsable')]
    public function test_names_what_cannot_be_used_and_the_remedy(string $content, string $code, string $says): void
    {
        try {
            (new FormatDetection)->find($this->file($content, 'x'), 'register.csv');
            self::fail('The file was taken.');
        } catch (UnreadableFile $problem) {
            self::assertSame($code, $problem->code());
            self::assertStringContainsString('"register.csv"', $problem->getMessage());
            self::assertStringContainsString($says, $problem->getMessage());
        }
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function notUsable(): iterable
    {
        yield 'empty' => ['', 'empty-file', 'is empty'];
        yield 'a byte-order mark and nothing else' => ["\xEF\xBB\xBF", 'empty-file', 'is empty'];
        yield 'a workbook' => ["PK\x03\x04\x14\0\6\0", 'broken-off', 'Pack it or copy it again'];
        yield 'a packed file that breaks off' => ["\x1F\x8B\x08\0", 'broken-off', 'breaks off'];
        yield 'binary' => ["\x7FELF\2\1\0\1,\n\1\2\n", 'not-delimited-text', 'a binary file'];
    }

    public function test_a_sample_that_ends_inside_a_letter_is_still_utf_8(): void
    {
        $content = "basin,holder\n".str_repeat("KB,øøøøøøøø\n", 30_000);

        self::assertSame('UTF-8', (new FormatDetection)->find($this->file($content), 'berths.csv')->reasons['encoding']);
    }
}
