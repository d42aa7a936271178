<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

/** What a control total takes of the rows of a side, or of a group of them. */
enum Measure: string
{
    case Rows = 'rows';
    case Sum = 'sum';
    case Blanks = 'blanks';
    case Distinct = 'distinct';
    case Least = 'least';
    case Greatest = 'greatest';

    /** Whether it looks at a column. */
    public function hasColumn(): bool
    {
        return $this !== self::Rows;
    }

    /** Whether the difference of two is made up of shares. */
    public function hasShares(): bool
    {
        return ! $this->isExtreme() && $this !== self::Distinct;
    }

    public function isExtreme(): bool
    {
        return $this === self::Least || $this === self::Greatest;
    }
}
