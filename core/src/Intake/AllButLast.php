<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

/** Leaves out the last of what streams by: that they are the last is known only when no more come. Holds as many. */
final readonly class AllButLast
{
    /**
     * @template Item
     *
     * @param  iterable<int, Item>  $items
     * @return \Generator<int, Item>
     */
    public static function of(iterable $items, int $last): \Generator
    {
        $waiting = [];
        foreach ($items as $key => $item) {
            $waiting[] = [$key, $item];
            if (count($waiting) > $last) {
                [$first, $ready] = array_shift($waiting);
                yield $first => $ready;
            }
        }
    }
}
