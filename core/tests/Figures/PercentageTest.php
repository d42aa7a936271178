<?php

declare(strict_types=1);

namespace NineTally\Tests\Figures;

use NineTally\Core\Figures\Percentage;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class PercentageTest extends TestCase
{
    #[DataProvider('shares')]
    public function test_is_never_rounded_up_to_all_or_down_to_nothing(int $part, int $whole, string $text): void
    {
        self::assertSame($text, (new Percentage($part, $whole))->text());
    }

    /** @return iterable<string, array{int, int, string}> */
    public static function shares(): iterable
    {
        yield 'all' => [12, 12, '100.00 %'];
        yield 'all but one in a million' => [999_999, 1_000_000, '99.99 %'];
        yield 'half a hundredth below all' => [99_996, 100_000, '99.99 %'];
        yield 'one in a million' => [1, 1_000_000, 'under 0.01 %'];
        yield 'a hundredth exactly' => [1, 10_000, '0.01 %'];
        yield 'none' => [0, 12, '0.00 %'];
        yield 'two thirds, rounded' => [2, 3, '66.67 %'];
        yield 'none of none' => [0, 0, 'no figure'];
    }
}
