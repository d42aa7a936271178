<?php

declare(strict_types=1);

namespace NineTally\Tests\Value;

use NineTally\Core\Value\DateForm;
use NineTally\Core\Value\Decimal;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\NumberStyle;
use NineTally\Core\Value\Reading;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class ReadingTest extends TestCase
{
    #[DataProvider('numbers')]
    public function test_reads_numbers_exactly_as_a_side_writes_them(NumberStyle $style, string $text, ?string $number): void
    {
        self::assertSame($number, $style->read($text, true)?->canonical());
    }

    /** @return iterable<string, array{NumberStyle, string, string|null}> sign, digits, power of ten */
    public static function numbers(): iterable
    {
        $point = new NumberStyle;
        $comma = new NumberStyle(',', '.');
        $spaces = new NumberStyle(',', ' ');
        $ungrouped = new NumberStyle('.', '');
        yield 'zeros at both ends' => [$point, '007.50', '75e-1'];
        yield 'minus zero' => [$point, '-0.00', '0e0'];
        yield 'groups that are declared' => [new NumberStyle('.', ','), '12,345,678.9', '123456789e-1'];
        yield 'groups that are not' => [$point, '12,345,678.9', null];
        yield 'a group too short' => [new NumberStyle('.', ','), '12,34', null];
        yield 'a group too long' => [$point, '1,2345', null];
        yield 'a decimal comma' => [$comma, '1.234,50', '12345e-1'];
        yield 'a point is no decimal there' => [$comma, '12.5', null];
        yield 'spaces' => [$spaces, '12 345,6', '123456e-1'];
        yield 'no-break spaces' => [$spaces, "12\u{00A0}345\u{202F}678", '12345678e0'];
        yield 'thin spaces' => [$spaces, "12\u{2009}345", '12345e0'];
        yield 'apostrophes of either kind' => [new NumberStyle('.', "'"), "12\u{2019}345'678", '12345678e0'];
        $pounds = new NumberStyle('.', ',', '£', negatives: 'parentheses');
        yield 'a currency in front' => [$pounds, '£1,200.50', '12005e-1'];
        yield 'a minus before it' => [$pounds, '-£5', '-5e0'];
        yield 'a minus behind it' => [$pounds, '£-5', '-5e0'];
        yield 'two signs' => [$pounds, '-£-5', null];
        yield 'a negative amount in parentheses' => [$pounds, '(£ 1,200.50)', '-12005e-1'];
        yield 'a sign within them' => [$pounds, '(-5)', null];
        yield 'one of them alone' => [$pounds, '(5', null];
        yield 'another currency' => [$pounds, '€5', null];
        yield 'a currency that nobody declared' => [$point, '£5', null];
        yield 'a code behind a no-break space' => [new NumberStyle(',', '.', 'EUR'), "1.200,50\u{A0}EUR", '12005e-1'];
        yield 'a minus behind' => [new NumberStyle(negatives: 'minus-behind'), '5.25-', '-525e-2'];
        yield 'percent as a number' => [new NumberStyle(',', percent: 'number'), '12,5 %', '125e-1'];
        yield 'percent as a share' => [new NumberStyle(percent: 'share'), '5%', '5e-2'];
        yield 'a share without its sign' => [new NumberStyle(percent: 'share'), '0.05', '5e-2'];
        yield 'percent that nobody declared' => [$point, '5%', null];
        yield 'no groups at all' => [$ungrouped, '1,234', null];
        yield 'an exponent' => [$point, '1.5E+3', '15e2'];
        yield 'a huge exponent' => [$point, '1e400', '1e400'];
        yield 'an exponent of too many digits' => [$point, '1e9999999999', null];
        yield 'thirty digits' => [$point, '123456789012345678901234567891', '123456789012345678901234567891e0'];
        yield 'a sign alone' => [$point, '-', null];
        yield 'a point alone' => [$point, '.', null];
        yield 'nothing' => [$point, '', null];
        yield 'two points' => [$point, '1.2.3', null];
        yield 'digits of another script' => [$point, "\u{0661}\u{0662}", null];
    }

    public function test_what_is_written_in_a_style_is_read_in_it(): void
    {
        foreach (
            [
                '(£1,200.5)' => new NumberStyle('.', ',', '£', negatives: 'parentheses'),
                'EUR 1.200,5-' => new NumberStyle(',', '.', 'EUR', negatives: 'minus-behind'),
                '-1200.5' => new NumberStyle,
            ] as $written => $style
        ) {
            $number = Decimal::of(true, '1200', '5', 0);
            self::assertSame([$written, $number->canonical()], [$style->written($number), $style->read($written, true)?->canonical()]);
        }
        self::assertSame('-5e0', (new Reading(Kind::Number, numbers: new NumberStyle(currency: 'EUR')))->number('EUR -5')?->canonical());
    }

    public function test_leading_zeros_are_how_identifiers_look_until_the_kind_is_number(): void
    {
        self::assertNull((new Reading)->number('007'));
        self::assertSame('7e0', (new Reading(Kind::Number))->number('007')?->canonical());
        self::assertSame('5e-1', (new Reading)->number('0.5')?->canonical());
    }

    public function test_yes_and_no_are_words_with_capitals_or_without(): void
    {
        $dutch = new Reading(yes: ['ja', 'J'], no: ['nee', 'N']);

        self::assertSame(
            [true, true, false, null, null],
            [
                $dutch->yesOrNo('JA'),
                $dutch->yesOrNo('j'),
                $dutch->yesOrNo('Nee'),
                $dutch->yesOrNo('yes'),
                $dutch->yesOrNo(str_repeat('j', 500)),
            ],
        );
        self::assertSame(
            [true, false, null],
            [(new Reading)->yesOrNo('T'), (new Reading)->yesOrNo('0'), (new Reading)->yesOrNo('on')],
        );
    }

    public function test_blank_is_the_empty_cell_and_the_declared_tokens_byte_for_byte(): void
    {
        $reading = new Reading(blankTokens: ['NULL', '-']);

        self::assertSame(
            [true, true, true, false, false, false],
            array_map($reading->isBlank(...), ['', 'NULL', '-', 'null', ' ', 'NULL ']),
        );
        self::assertFalse((new Reading)->isBlank('NULL'));
    }

    public function test_readings_are_alike_when_equal_bytes_mean_the_same_under_both(): void
    {
        self::assertTrue((new Reading(Kind::Date))->isLike(new Reading(Kind::Date)));
        self::assertFalse((new Reading(blankTokens: ['NULL']))->isLike(new Reading));
        self::assertFalse((new Reading(Kind::Number, numbers: new NumberStyle(',', '.')))->isLike(new Reading(Kind::Number)));
        self::assertFalse((new Reading(Kind::DateTime, zone: new \DateTimeZone('Europe/London')))->isLike(new Reading(Kind::DateTime)));
        self::assertFalse((new Reading(Kind::Date, dateForms: [DateForm::of('dd/MM/yyyy')]))->isLike(new Reading(Kind::Date)));
        self::assertFalse((new Reading(Kind::YesNo, yes: ['ja']))->isLike(new Reading(Kind::YesNo)));
        // What is declared about numbers and days means nothing to a text.
        self::assertTrue((new Reading(numbers: new NumberStyle(',', '.'), dateForms: [DateForm::of('dd/MM/yyyy')]))->isLike(new Reading));
    }

    public function test_a_time_on_the_wall_is_fixed_by_its_zone_also_where_clocks_change(): void
    {
        $london = new Reading(Kind::DateTime, zone: new \DateTimeZone('Europe/London'));

        self::assertSame('instant 1814702400.', $london->moment('2027-07-04 13:00')?->canonical());
        self::assertSame('instant 1798977600.', $london->moment('2027-01-03 12:00')?->canonical());
        // 28 March 2027, 01:30 does not exist there: clocks go from 01:00 to 02:00.
        self::assertNull($london->moment('2027-03-28 01:30'));
        self::assertSame([true, false], [$london->isSkipped('2027-03-28 01:30'), $london->isSkipped('2027-03-28 02:30')]);
        // 31 October 2027, 01:30 is shown twice: an hour apart, and either is meant.
        $twice = $london->moment('2027-10-31 01:30');
        self::assertSame([3600, 0], [$twice?->offset, $twice?->otherOffset]);
        self::assertNull($london->moment('2027-10-31 02:30')?->otherOffset);
        // A day alone is no instant.
        self::assertSame('day 20457', $london->moment('2026-01-04')?->canonical());
    }

    /** Digits alone are told without the expression, which reads what has a sign before them. */
    public function test_digits_are_the_number_that_they_are_with_a_sign(): void
    {
        mt_srand(20_261_130);
        $styles = [new NumberStyle, new NumberStyle(',', '.'), new NumberStyle('.', ',', 'EUR', 'share', 'parentheses')];
        for ($nth = 0; $nth < 3_000; $nth++) {
            $digits = (string) mt_rand(0, 10 ** mt_rand(1, 9));
            $text = ['', '0', '00'][mt_rand(0, 2)].substr_replace($digits, ['.', ',', ''][mt_rand(0, 2)], mt_rand(0, strlen($digits)), 0);
            foreach ($styles as $style) {
                foreach ([true, false] as $takesLeadingZeros) {
                    self::assertEquals($style->read("+{$text}", $takesLeadingZeros), $style->read($text, $takesLeadingZeros), $text);
                }
            }
        }
    }
}
