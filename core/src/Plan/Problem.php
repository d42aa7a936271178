<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

/** Something in a plan that keeps it from being used, with its place. */
final readonly class Problem
{
    /** @param string $pointer the place as a JSON Pointer (RFC 6901), such as "/key/0/source" */
    public function __construct(public string $pointer, public string $message) {}
}
