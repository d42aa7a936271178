<?php

declare(strict_types=1);

namespace NineTally\Tests\Preparation;

use NineTally\Core\Preparation\SafePattern;
use NineTally\Core\Preparation\UnusableStep;
use PHPUnit\Framework\TestCase;

final class SafePatternTest extends TestCase
{
    /** Needs some fifty thousand steps for a value of thirty characters, and finds nothing. */
    private const SLOW = '^(.*)(.*)(.*)(.*)[yz]\1$';

    public function test_a_pattern_may_be_slow_on_some_values_and_not_on_many(): void
    {
        $pattern = SafePattern::of(self::SLOW, 1_000_000);
        $slow = str_repeat('a', 30).'!';
        for ($value = 0; $value < 5_000; $value++) {
            self::assertFalse($pattern->matches('a!'));
        }

        self::assertFalse($pattern->matches($slow));
        $this->expectException(UnusableStep::class);
        $this->expectExceptionMessage('takes too long on so many values');
        for ($value = 0; $value < 1_000; $value++) {
            $pattern->matches($slow);
        }
    }
}
