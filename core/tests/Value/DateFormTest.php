<?php

declare(strict_types=1);

namespace NineTally\Tests\Value;

use NineTally\Core\Value\DateForm;
use NineTally\Core\Value\Reading;
use NineTally\Core\Value\UnusableDateForm;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class DateFormTest extends TestCase
{
    #[DataProvider('written')]
    public function test_reads_what_is_written_in_its_form(string $pattern, string $text, string $moment, ?int $from = null): void
    {
        self::assertSame($moment, DateForm::of($pattern, $from)->read($text)?->canonical());
    }

    /** @return iterable<string, array{0: string, 1: string, 2: string, 3?: int}> days since 1970-01-01, or seconds */
    public static function written(): iterable
    {
        yield 'the first day' => ['yyyy-MM-dd', '1970-01-01', 'day 0'];
        yield 'a day before it' => ['yyyy-MM-dd', '1969-12-31', 'day -1'];
        yield 'a leap day' => ['dd/MM/yyyy', '29/02/2028', 'day 21243'];
        yield 'a day long ago' => ['yyyy-MM-dd', '1600-02-29', 'day -135081'];
        yield 'one digit or two' => ['d.M.yyyy', '5.11.2026', 'day 20762'];
        yield 'a month cut to three letters' => ['d MMM yyyy', '5 Nov 2026', 'day 20762'];
        yield 'a whole month in capitals' => ['d MMM yyyy', '5 NOVEMBER 2026', 'day 20762'];
        yield 'two digits, from 1950' => ['dd.MM.yy', '05.11.26', 'day 20762', 1950];
        yield 'two digits of the century before' => ['dd.MM.yy', '01.01.50', 'day -7305', 1950];
        yield 'other letters between apostrophes' => ["yyyy-MM-dd'T'HH:mm", '1970-01-02T00:01', 'clock 86460.'];
        yield 'a clock of twelve hours' => ['dd/MM/yyyy hh:mm a', '01/01/1970 12:05 am', 'clock 300.'];
        yield 'and its afternoon' => ['dd/MM/yyyy h:mm a', '01/01/1970 1:05 PM', 'clock 47100.'];
        yield 'a fraction without the zeros at its end' => ['yyyy-MM-dd HH:mm:ss.SSS', '1970-01-01 00:00:01.500', 'clock 1.5'];
        yield 'an offset' => ['yyyy-MM-dd HH:mm XXX', '1970-01-01 01:00 +01:00', 'instant 0.'];
        yield 'midnight is the day' => ['yyyy-MM-dd HH:mm', '1970-01-03 00:00', 'day 2'];
        yield 'a month of four letters and a point' => ['d. MMM yyyy', '5. Sept. 2026', 'day 20701'];
        yield 'a month in German' => ['d. MMM yyyy', '3. März 1970', 'day 61'];
        yield 'in French, its letters composed or not' => ['d MMM yyyy', "3 de\u{0301}cembre 1970", 'day 336'];
        yield 'in Spanish' => ['d MMM yyyy', '3 ago 1970', 'day 214'];
        yield 'in Italian' => ['d MMM yyyy', '3 giugno 1970', 'day 153'];
        yield 'in Dutch' => ['d MMM yyyy', '3 mei 1970', 'day 122'];
        yield 'the day number of a workbook' => ['day-number-1900', '25569', 'day 0'];
        yield 'with a time, to the second' => ['day-number-1900', '25569.0423726852', 'clock 3661.'];
        yield 'the first day of a workbook' => ['day-number-1900', '1', 'day -25567'];
        yield 'the day before the one that never was' => ['day-number-1900', '59', 'day -25509'];
        yield 'the day behind it' => ['day-number-1900', '61', 'day -25508'];
        yield 'of a workbook that begins in 1904' => ['day-number-1904', '0', 'day -24107'];
        yield '24:00 is the next day' => ['yyyy-MM-dd HH:mm', '1970-01-03 24:00', 'day 3'];
    }

    #[DataProvider('notWritten')]
    public function test_reads_nothing_else(string $pattern, string $text): void
    {
        self::assertNull(DateForm::of($pattern)->read($text));
    }

    /** @return iterable<string, array{string, string}> */
    public static function notWritten(): iterable
    {
        yield 'no such day' => ['dd/MM/yyyy', '31/04/2027'];
        yield '29 February of a common year' => ['dd/MM/yyyy', '29/02/2027'];
        yield '29 February of a century that is no leap year' => ['dd/MM/yyyy', '29/02/1900'];
        yield 'month 13' => ['dd/MM/yyyy', '01/13/2027'];
        yield 'the year 0' => ['yyyy-MM-dd', '0000-01-01'];
        yield 'fewer digits than declared' => ['dd/MM/yyyy', '1/2/2027'];
        yield 'more than is declared' => ['yyyy-MM-dd', '2027-01-14 '];
        yield 'a line end' => ['yyyy-MM-dd', "2027-01-14\n"];
        yield '25:00' => ['yyyy-MM-dd HH:mm', '2027-01-14 25:00'];
        yield '24:01' => ['yyyy-MM-dd HH:mm', '2027-01-14 24:01'];
        yield 'hour 13 of twelve' => ['yyyy-MM-dd h:mm a', '2027-01-14 13:00 pm'];
        yield 'a name of two months' => ['d MMM yyyy', '5 jui 2026'];
        yield 'a name of two letters' => ['d MMM yyyy', '5 ju 2026'];
        yield 'the day that never was' => ['day-number-1900', '60'];
        yield 'a day before the first' => ['day-number-1900', '0'];
        yield 'no day number' => ['day-number-1900', '2027-01-14'];
        yield 'no month of that name' => ['d MMM yyyy', '5 Nev 2026'];
        yield 'a name that goes on as another' => ['d MMM yyyy', '5 Novem2 2026'];
    }

    #[DataProvider('unusable')]
    public function test_says_why_a_pattern_is_no_form(string $pattern, string $says): void
    {
        $this->expectException(UnusableDateForm::class);
        $this->expectExceptionMessage($says);
        DateForm::of($pattern);
    }

    /** @return iterable<string, array{string, string}> */
    public static function unusable(): iterable
    {
        yield 'no day' => ['MM/yyyy', 'names no whole day'];
        yield 'letters without a meaning' => ['yyyy-MM-dd QQ', '"QQ" means nothing there'];
        yield 'two-digit years without a century' => ['dd.MM.yy', 'the first year that two digits can mean'];
        yield 'one field twice' => ['dd/dd/MM/yyyy', 'means nothing there'];
        yield 'nothing' => ['', 'names no whole day'];
    }

    #[DataProvider('undeclared')]
    public function test_without_a_declared_form_only_what_cannot_be_misread_is_read(string $text, ?string $moment): void
    {
        self::assertSame($moment, (new Reading)->moment($text)?->canonical());
    }

    /** @return iterable<string, array{string, string|null}> */
    public static function undeclared(): iterable
    {
        yield 'a day' => ['1970-01-02', 'day 1'];
        yield 'with a time' => ['1970-01-01T00:00:10', 'clock 10.'];
        yield 'a space before the time' => ['1970-01-01 00:00:10.50', 'clock 10.5'];
        yield 'UTC' => ['1970-01-01T00:00:10Z', 'instant 10.'];
        yield 'an offset of hours alone' => ['1970-01-01T01:00:10+01', 'instant 10.'];
        yield 'no such day' => ['1970-02-29', null];
        yield 'day first, or month first: nobody can tell' => ['02/01/1970', null];
        yield 'not even where the day could be no month, for the next value could' => ['01/31/1970', null];
        yield 'a month by its name' => ['2 January 1970', null];
        yield 'one digit' => ['1970-1-2', null];
        yield 'slashes' => ['1970/01/02', null];
        yield 'two-digit years' => ['02/01/70', null];
        yield 'eight digits could be any number' => ['19700102', null];
        yield 'a telephone number' => ['0117-496-0123', null];
    }
}
