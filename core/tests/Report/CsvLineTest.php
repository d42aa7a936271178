<?php

declare(strict_types=1);

namespace NineTally\Tests\Report;

use NineTally\Core\Report\CsvLine;
use PHPUnit\Framework\TestCase;

final class CsvLineTest extends TestCase
{
    public function test_is_byte_true(): void
    {
        self::assertSame("=1+1,\"a,b\",\"x\"\"y\",\"l\nm\", p\n", CsvLine::of(['=1+1', 'a,b', 'x"y', "l\nm", ' p']));
        self::assertSame("\"\"\n", CsvLine::of(['']), 'A record of one empty cell must not become a line with nothing on it.');
    }

    public function test_for_spreadsheets_what_begins_like_a_formula_is_led_by_an_apostrophe(): void
    {
        self::assertSame(
            ["'=1+1", "'+44", "'-5", "'@x", "'\rx", 'a=b', -7, -0.5],
            CsvLine::forSpreadsheets(['=1+1', '+44', '-5', '@x', "\rx", 'a=b', -7, -0.5]),
        );
    }
}
