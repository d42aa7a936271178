<?php

declare(strict_types=1);

namespace NineTally\Core\Likeness\Measures;

use NineTally\Core\Likeness\FoldedText;
use NineTally\Core\Likeness\Measure;
use NineTally\Core\Value\Reading;

/** For values that one side has cut: how much of the shorter is the beginning of the longer. */
final readonly class Beginning implements Measure
{
    /** Shorter ones begin too many others. */
    private const FEWEST = 4;

    public function __construct(private FoldedText $folded = new FoldedText) {}

    public function made(string $value, Reading $reading): ?string
    {
        return $this->folded->of($value, $reading);
    }

    public function likeness(mixed $one, mixed $other): float
    {
        assert(is_string($one) && is_string($other));
        if ($one === $other) {
            return 1.0;
        }
        $shorter = min(strlen($one), strlen($other));
        // The bytes in which they differ first; none before the first that is not the same.
        $common = strspn($one ^ $other, "\0");

        return $shorter < self::FEWEST ? 0.0 : min($common, $shorter) / $shorter;
    }

    public function traces(mixed $made): array
    {
        assert(is_string($made));

        return [$made, mb_substr($made, 0, 16), mb_substr($made, 0, 8), mb_substr($made, 0, self::FEWEST)];
    }
}
