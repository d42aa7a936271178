<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

/** One column of the key, under its name on each side. */
final readonly class KeyColumn
{
    public function __construct(public string $source, public string $target) {}
}
