<?php

declare(strict_types=1);

namespace NineTally\Core\Figures;

/** A share of exact counts, shown with two decimals and never rounded up to 100 or down to 0. */
final readonly class Percentage
{
    public function __construct(public int $part, public int $whole) {}

    /** Such as "99.99 %"; a share above nothing and below a hundredth is "under 0.01 %"; 0 of 0 is "no figure". */
    public function text(): string
    {
        if ($this->whole === 0) {
            return 'no figure';
        }
        if ($this->part > 0 && $this->part * 10_000 < $this->whole) {
            return 'under 0.01 %';
        }
        // Integers, for a float may round on its own.
        $hundredths = intdiv($this->part * 20_000 + $this->whole, 2 * $this->whole);
        $hundredths = $this->part < $this->whole ? min($hundredths, 9_999) : $hundredths;

        return sprintf('%d.%02d %%', intdiv($hundredths, 100), $hundredths % 100);
    }
}
