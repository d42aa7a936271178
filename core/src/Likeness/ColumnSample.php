<?php

declare(strict_types=1);

namespace NineTally\Core\Likeness;

use NineTally\Core\Value\Kind;

/** Values of a column of both sides, of rows that meet nothing. */
final readonly class ColumnSample
{
    /**
     * @param  Kind  $kind  as what the plan reads them
     * @param  list<string>  $sourceValues  blanks among them as ''
     * @param  list<string>  $targetValues
     * @param  float|null  $agreed  of the rows that meet, the share in which it agrees; null of columns of the key, and where none met
     */
    public function __construct(
        public string $source,
        public string $target,
        public Kind $kind,
        public bool $isOfKey,
        public array $sourceValues,
        public array $targetValues,
        public ?float $agreed,
    ) {}
}
