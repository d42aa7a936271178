<?php

declare(strict_types=1);

namespace NineTally\Tests\Value;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use NineTally\Core\Preparation\Formula\Functions;
use NineTally\Core\Value\PlainNumber;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;

/** The machine's integers give what decimals of any length give, or nothing. */
final class PlainNumberTest extends TestCase
{
    public function test_it_reckons_as_decimals_do(): void
    {
        mt_srand(20_261_130);
        $number = static function (): string {
            $digits = (string) mt_rand(0, 10 ** mt_rand(1, 14));
            $point = mt_rand(1, strlen($digits));
            $digits = mt_rand(0, 2) === 0 || $point === strlen($digits) ? $digits : substr_replace($digits, '.', $point, 0);

            return (mt_rand(0, 2) === 0 ? '-' : '').(mt_rand(0, 5) === 0 ? '00' : '').$digits;
        };
        $given = 0;
        for ($nth = 0; $nth < 3_000; $nth++) {
            [$one, $other, $places] = [$number(), $number(), mt_rand(0, 6)];
            [$left, $right] = [PlainNumber::of($one), PlainNumber::of($other)];
            if ($left === null || $right === null) {
                continue;
            }
            [$exact, $another] = [BigDecimal::of($one), BigDecimal::of($other)];
            $results = [
                '+' => [$left->plus($right)?->written(), Functions::written($exact->plus($another))],
                '-' => [$left->minus($right)?->written(), Functions::written($exact->minus($another))],
                '*' => [$left->times($right)?->written(), Functions::written($exact->multipliedBy($another))],
                'rounded' => [$left->rounded($places)?->written(false), (string) $exact->toScale($places, RoundingMode::HALF_UP)],
            ];
            foreach ($results as $operator => [$is, $shouldBe]) {
                $given += $is === null ? 0 : 1;
                self::assertSame($is === null ? null : $shouldBe, $is, "{$one} {$operator} {$other}, {$places} places");
            }
            self::assertContains($left->comparedTo($right), [null, $exact->compareTo($another)], "{$one} and {$other}");
        }
        self::assertGreaterThan(6_000, $given);
    }

    #[TestWith(['+1'])]
    #[TestWith(['1.'])]
    #[TestWith(['.5'])]
    #[TestWith(['1.2.3'])]
    #[TestWith(['1e3'])]
    #[TestWith(['-'])]
    #[TestWith([' 1'])]
    #[TestWith(['1234567890123456'])]
    public function test_what_is_written_in_another_way_is_left_to_others(string $text): void
    {
        self::assertNull(PlainNumber::of($text));
    }
}
