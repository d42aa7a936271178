<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

/** Values of data that a plan holds: lines of crosswalks, bridges, and rows chosen by hand. Everything else of it is a rule. */
final readonly class PlanValues
{
    /** Lists of pairs of values, wherever the schema has them; no map that people name holds a list. */
    private const LISTS = ['bridges', 'refusedBridges', 'keptRows', 'crosswalk', 'entries'];

    /**
     * @param  array<array-key, mixed>  $document  without them
     * @param  int  $count  lines of crosswalks, and bridges, that were taken out
     */
    private function __construct(public array $document, public int $count) {}

    /** @param array<array-key, mixed> $document of a plan, or of a draft of one */
    public static function takenOutOf(array $document): self
    {
        $count = 0;
        foreach ($document as $name => $part) {
            if (is_array($part)) {
                $isOfValues = in_array($name, self::LISTS, true) && array_is_list($part);
                $inner = $isOfValues ? new self([], count($part)) : self::takenOutOf($part);
                $document[$name] = $inner->document;
                $count += $inner->count;
            }
        }

        return new self($document, $count);
    }
}
