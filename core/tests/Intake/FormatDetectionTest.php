<?php

declare(strict_types=1);

namespace NineTally\Tests\Intake;

use NineTally\Core\Intake\FormatDetection;
use NineTally\Core\Intake\LineEnds;
use NineTally\Core\Intake\NotUsable;
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

    #[DataProvider('notUsable')]
    public function test_names_what_cannot_be_used_and_the_remedy(string $content, string $code, string $says): void
    {
        try {
            (new FormatDetection)->find($this->file($content, 'x'), 'register.csv');
            self::fail('The file was taken.');
        } catch (NotUsable $problem) {
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
