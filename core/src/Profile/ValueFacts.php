<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

use Brick\Math\BigDecimal;

/** What is known of one value, found once for all cells that have it. */
final readonly class ValueFacts
{
    /**
     * @param  bool  $isToken  it may stand for want of a value
     * @param  array<string, BigDecimal|int|string>  $read  kind => the value as that kind orders it, for each kind as which it can be read
     */
    public function __construct(
        public int $length,
        public bool $hasLineEnd,
        public bool $hasInvisible,
        public bool $isToken,
        public array $read,
        public string $shape,
    ) {}
}
