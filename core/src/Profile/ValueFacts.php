<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

/** What is known of one value, found once for all cells that have it. */
final readonly class ValueFacts
{
    /** @param bool $isToken it may stand for want of a value */
    public function __construct(
        public int $length,
        public bool $hasLineEnd,
        public bool $hasInvisible,
        public bool $isToken,
        public string $shape,
        public PlainReadings $read,
    ) {}
}
