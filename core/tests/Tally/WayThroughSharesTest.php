<?php

declare(strict_types=1);

namespace NineTally\Tests\Tally;

use Brick\Math\BigDecimal;
use NineTally\Core\Totals\WayThroughShares;
use PHPUnit\Framework\TestCase;

/** Which shares lie between a total and the figure that somebody else has. */
final class WayThroughSharesTest extends TestCase
{
    public function test_the_fewest_shares_that_lead_to_a_figure_are_found_or_none(): void
    {
        $way = static fn(string $apart, string ...$nets): ?array => WayThroughShares::of(
            BigDecimal::of($apart),
            array_map(BigDecimal::of(...), array_values($nets)),
        );

        self::assertSame([1, 3], $way('-7.50', '2', '-8.00', '6', '0.5'));
        self::assertSame([2], $way('3', '1', '2', '3'));
        self::assertSame([], $way('0', '1', '-1'));
        self::assertNull($way('4', '1', '2'));
        self::assertNull($way('1', ...array_fill(0, 11, '1')));
    }
}
