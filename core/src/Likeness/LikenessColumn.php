<?php

declare(strict_types=1);

namespace NineTally\Core\Likeness;

use NineTally\Core\Value\Reading;

/** A column of both sides by whose values rows are alike. */
final readonly class LikenessColumn
{
    /** @param int $weight how much it counts, from 1 to 10 */
    public function __construct(
        public LikenessKind $kind,
        public int $weight,
        public Reading $source = new Reading,
        public Reading $target = new Reading,
    ) {}
}
