<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

use NineTally\Core\Value\DeclaredReading;

/**
 * One thing that could be done so that more rows meet: a cause of form that a column of the key would forgive, with what both sides would
 * declare for it; or a crosswalk of the source's values.
 *
 * @phpstan-import-type Declared from DeclaredReading
 */
final readonly class KeyRung
{
    /**
     * @param  int  $column  of the key, from 0
     * @param  string  $cause  of form, or crosswalk
     * @param  Declared  $source
     * @param  Declared  $target
     * @param  array<array-key, string>  $entries  of a crosswalk: value of the source => value of the target
     */
    public function __construct(
        public int $column,
        public string $cause,
        public array $source = [],
        public array $target = [],
        public array $entries = [],
    ) {}
}
