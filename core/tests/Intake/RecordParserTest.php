<?php

declare(strict_types=1);

namespace NineTally\Tests\Intake;

use NineTally\Core\Intake\Delimited\DelimitedFormat;
use NineTally\Core\Intake\Delimited\LineEnds;
use NineTally\Core\Intake\Delimited\RecordParser;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class RecordParserTest extends TestCase
{
    /** @param list<string> $cells */
    #[DataProvider('lines')]
    public function test_takes_a_line_apart(string $line, array $cells): void
    {
        $parser = new RecordParser(';');

        self::assertSame($cells, $parser->begin($line));
        self::assertFalse($parser->isOpen());
        self::assertFalse($parser->isMalformed());
    }

    /** @return iterable<string, array{string, list<string>}> */
    public static function lines(): iterable
    {
        yield 'plain' => ['KB;014', ['KB', '014']];
        yield 'a blank last cell' => ['KB;', ['KB', '']];
        yield 'blank cells only' => [';;', ['', '', '']];
        yield 'a quoted last cell' => ['KB;"a;b"', ['KB', 'a;b']];
        yield 'a quoted first cell' => ['"a;b";KB', ['a;b', 'KB']];
        yield 'quoted and blank at the end' => ['"a";', ['a', '']];
        yield 'a cell of quotes only' => ['"""""";x', ['""', 'x']];
        yield 'a quote in the middle is a letter' => ['12" hull;KB', ['12" hull', 'KB']];
        yield 'a space before a quote makes it a letter' => [' "a";KB', [' "a"', 'KB']];
    }

    public function test_a_record_may_run_over_many_lines_and_the_next_one_begins_afresh(): void
    {
        $parser = new RecordParser(',');
        self::assertNull($parser->begin('KB,"one'));
        self::assertTrue($parser->isOpen());
        $parser->addInside("\r\n");
        self::assertNull($parser->goOn('two ""quoted""'));
        $parser->addInside("\n");
        self::assertSame(['KB', "one\r\ntwo \"quoted\"\n three", 'x'], $parser->goOn(' three",x'));

        self::assertSame(['LM', 'y'], $parser->begin('LM,"y"'));
    }

    public function test_text_after_a_closing_quote_is_told_and_forgotten_with_the_record(): void
    {
        $parser = new RecordParser(',');
        $parser->begin('"a"b,c');
        self::assertTrue($parser->isMalformed());

        $parser->begin('a,b');
        self::assertFalse($parser->isMalformed());
    }

    public function test_a_format_comes_back_from_what_is_stored_of_it(): void
    {
        foreach (DelimitedFormat::DELIMITERS as $delimiter => $name) {
            $format = new DelimitedFormat($delimiter, LineEnds::Crlf, true);

            self::assertEquals($format, DelimitedFormat::fromArray($format->toArray()));
            self::assertSame($name, $format->delimiterName());
        }
        $this->expectException(\UnexpectedValueException::class);
        $this->expectExceptionMessage('A delimiter is comma, semicolon, tab, bar, or another sign of one byte, not "slash".');
        (new DelimitedFormat(',', LineEnds::Lf))->with(delimiterName: 'slash');
    }
}
