<?php

declare(strict_types=1);

namespace NineTally\Core\Likeness;

use NineTally\Core\Value\Reading;

/** How alike two values of one column are. What it needs of a value is made once, for each is compared many times. */
interface Measure
{
    /**
     * What is compared of a value; null if it says nothing, as blanks do.
     *
     * @param  Reading  $reading  how values of its side are written
     */
    public function made(string $value, Reading $reading): mixed;

    /**
     * From 0, nothing in common, to 1, the same; the same whichever comes first.
     *
     * @param  mixed  $one  as it was made
     * @param  mixed  $other  as it was made
     */
    public function likeness(mixed $one, mixed $other): float;

    /**
     * What two values that are alike are likely to share, the whole of it first. By them candidates are found without comparing all with
     * all.
     *
     * @return list<string>
     */
    public function traces(mixed $made): array;
}
