<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Figures\UnbalancedTally;

/** The equations that account for every row. A tally whose sums do not add up never reports. */
final readonly class Balance
{
    public function __construct(private SideCounts $source, private SideCounts $target) {}

    /** @throws UnbalancedTally with the first equation that does not hold */
    public function mustHold(): void
    {
        foreach ([$this->source, $this->target] as $side) {
            $name = $side->side->value;
            $this->equal("{$name}: records read = refused + delivered", $side->read, $side->refused + $side->delivered);
            $this->equal(
                "{$name}: delivered + made = left out + merged + prepared",
                $side->delivered + $side->made,
                $side->leftOut + $side->condensed + $side->prepared,
            );
            $this->equal(
                "{$name}: prepared = unkeyed + repeated + agreed + changed + unmatched",
                $side->prepared,
                $side->unkeyed + $side->repeated + $side->agreed + $side->changed + $side->unmatched,
            );
        }
        $this->equal('both sides agreed', $this->source->agreed, $this->target->agreed);
        $this->equal('both sides changed', $this->source->changed, $this->target->changed);
    }

    private function equal(string $equation, int $left, int $right): void
    {
        if ($left !== $right) {
            throw UnbalancedTally::inEquation($equation, $left, $right);
        }
    }
}
