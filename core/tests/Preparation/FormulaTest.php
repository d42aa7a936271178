<?php

declare(strict_types=1);

namespace NineTally\Tests\Preparation;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\Formula\Effort;
use NineTally\Core\Preparation\Formula\Formula;
use NineTally\Core\Preparation\Formula\FormulaError;
use NineTally\Core\Preparation\UnusableStep;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class FormulaTest extends TestCase
{
    private const COLUMNS = ['fee', 'length', 'basin', 'paid until', 'day'];

    private const CELLS = ['1412.60', '14.30', 'Kestrel Broad', '2027-03-31', '2028-02-29'];

    #[DataProvider('formulas')]
    public function test_a_formula(string $formula, string $expected): void
    {
        self::assertSame($expected, $this->formula($formula)->value(self::CELLS));
    }

    /** @return iterable<array{string, string}> */
    public static function formulas(): iterable
    {
        yield ['fee * 3 - 0.1', '4237.7'];
        yield ['0.1 + 0.2', '0.3'];
        yield ['100000000000000000000000000000.01 + 1', '100000000000000000000000000001.01'];
        yield ['1 / 3', '0.33333333333333333333'];
        yield ['round(length / 3, 2)', '4.77'];
        yield ['round(2.5) ~ "/" ~ round(-2.5)', '3/-3'];
        yield ['-length + 2 * (3 - 1)', '-10.3'];
        yield ['"it\'s 5" ~ 5.0', "it's 55.0"];
        yield ['length > 9 and length <= 14.300 ? "long" : "short"', 'long'];
        yield ['"10" < "9"', 'no'];
        yield ['"b10" < "b9"', 'yes'];
        yield ['not (basin contains "Broad")', 'no'];
        yield ['left(basin, 7) ~ right(basin, 1) ~ part(basin, 9, 2)', 'KestreldBr'];
        yield ['year(column("paid until")) ~ month(day) ~ day(day)', '2027229'];
        yield ['days(column("paid until"), day)', '335'];
        yield ['later(day, 366)', '2029-03-01'];
        yield ['first("", upper(basin))', 'KESTREL BROAD'];
        yield ['blank("")', 'yes'];
        yield ['greatest(fee, length, 3)', '1412.6'];
        yield ['least(fee, "14.3", length) ~ "/" ~ absolute(-length) ~ "/" ~ number(fee)', '14.3/14.3/1412.6'];
        yield ['length(basin) ~ lower(left(basin, 1)) ~ left(basin, -1) ~ right(basin, 0)', '13k'];
        yield ['trimmed("  a b ") ~ "|" ~ replaced(basin, "e", "") ~ "|" ~ replaced(basin, "", "x")', 'a b|Kstrl Broad|Kestrel Broad'];
        yield ['+fee > 1412.5 && !(basin starts with "Lark") || false ? "yes" : "no"', 'yes'];
        yield ['basin ends with "road" and fee != 1412.60', 'no'];
        yield ['true ~ null ~ "."', 'yes.'];
    }

    /** What is reckoned by integers is what decimals of any length say, written in the same way. */
    public function test_plain_numbers_are_reckoned_as_decimals_are(): void
    {
        mt_srand(20261201);
        $number = static function (): string {
            $digits = (string) mt_rand(0, 10 ** mt_rand(1, 9));
            $places = mt_rand(0, 4);

            return (mt_rand(0, 2) === 0 ? '-' : '').
                ($places === 0 ? $digits : "{$digits}.".sprintf("%0{$places}d", mt_rand(0, 10 ** $places - 1)));
        };
        $columns = ['a', 'b', 'c'];
        foreach (['a * b - c', 'a + b * c', '(a - b) * 3.50', 'round(a * b - c, 2)', 'round(a * 1.25)', 'a * b * c'] as $written) {
            $formula = Formula::of($written, ColumnIndex::of($columns), $columns);
            for ($time = 0; $time < 300; $time++) {
                [$a, $b, $c] = $cells = [$number(), $number(), $number()];
                [$x, $y, $z] = array_map(BigDecimal::of(...), $cells);
                $expected = match ($written) {
                    'a * b - c' => $x->multipliedBy($y)->minus($z),
                    'a + b * c' => $x->plus($y->multipliedBy($z)),
                    '(a - b) * 3.50' => $x->minus($y)->multipliedBy('3.50'),
                    'round(a * b - c, 2)' => $x->multipliedBy($y)->minus($z)->toScale(2, RoundingMode::HALF_UP),
                    'round(a * 1.25)' => $x->multipliedBy('1.25')->toScale(0, RoundingMode::HALF_UP),
                    default => $x->multipliedBy($y)->multipliedBy($z),
                };
                $text = (string) $expected;
                $isRounded = str_starts_with($written, 'round');
                $text = ! $isRounded && str_contains($text, '.') ? rtrim(rtrim($text, '0'), '.') : $text;
                self::assertSame($text, $formula->value($cells), "{$written} with {$a}, {$b}, {$c}");
            }
        }
    }

    #[DataProvider('costly')]
    public function test_a_row_that_takes_too_long_has_no_value(string $formula, string $cell): void
    {
        $this->expectException(FormulaError::class);
        $this->expectExceptionMessageMatches('/takes too long on a row|the result is too long/');
        Formula::of($formula, ColumnIndex::of(['a']), ['a'])->value([$cell]);
    }

    /** @return iterable<string, array{string, string}> the worst that the grammar allows on a cell */
    public static function costly(): iterable
    {
        yield 'a product of long numbers' => ['a * a', str_repeat('7', 4_000)];
        yield 'a quotient of long numbers' => ['a / a', str_repeat('7', 4_000)];
        yield 'a text put into a text' => ['replaced(a, "x", a)', str_repeat('x', 90_000)];
        yield 'a text again and again' => [str_repeat('upper(', 45).'a'.str_repeat(')', 45), str_repeat('x', 90_000)];
        yield 'a text joined again and again' => [implode(' ~ ', array_fill(0, 40, 'a')), str_repeat('x', 9_000)];
    }

    public function test_rows_that_take_long_end_a_run_and_short_ones_do_not(): void
    {
        $formula = Formula::of('upper(a)', ColumnIndex::of(['a']), ['a'], effort: new Effort(100_000));
        for ($row = 0; $row < 1_000; $row++) {
            $formula->value(['Lark Mere']);
        }

        $this->expectException(UnusableStep::class);
        $this->expectExceptionMessage('1,0');
        for ($row = 0; $row < 100; $row++) {
            $formula->value([str_repeat('x', 150_000)]);
        }
    }

    #[DataProvider('errors')]
    public function test_an_error_is_no_value_and_never_zero(string $formula): void
    {
        $this->expectException(FormulaError::class);
        $this->formula($formula)->value(self::CELLS);
    }

    /** @return iterable<array{string}> */
    public static function errors(): iterable
    {
        yield ['fee / (length - 14.3)'];
        yield ['basin + 1'];
        yield ['later(basin, 1)'];
        yield ['later(day, 1.5)'];
        yield ['basin ? 1 : 2'];
        yield ['left(basin)'];
    }

    #[DataProvider('unreadable')]
    public function test_what_is_no_formula_is_refused_before_it_runs(string $formula, string $message): void
    {
        $this->expectException(UnusableStep::class);
        $this->expectExceptionMessage($message);
        $this->formula($formula);
    }

    /** @return iterable<string, array{string, string}> */
    public static function unreadable(): iterable
    {
        yield 'a name misspelt' => ['lenght * 2', 'Variable "lenght" is not valid. Did you mean "length"?'];
        yield 'a function of the machine' => ['system("ls")', 'The function "system" does not exist.'];
        yield 'reaching outside' => ['fee.constructor', 'The formula uses what formulas here do not have'];
        yield 'a range, which could go on' => ['1..100000000', 'The formula uses what formulas here do not have'];
        yield 'a power, which could grow' => ['9 ** 9 ** 9', 'The formula uses what formulas here do not have'];
        yield 'a pattern, which could go on' => ['basin matches "/(a+)+$/"', 'The formula uses what formulas here do not have'];
        yield 'nothing' => ['', 'The formula cannot be read'];
        yield 'nested too deeply' => [str_repeat('(', 60).'1'.str_repeat(' + 1)', 60), 'nested too deeply'];
        yield 'too long' => [str_repeat('1 + ', 600).'1', 'longer than'];
    }

    private function formula(string $formula): Formula
    {
        return Formula::of($formula, ColumnIndex::of(self::COLUMNS), self::COLUMNS);
    }
}
