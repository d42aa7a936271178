<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

use NineTally\Core\Value\DeclaredReading;
use NineTally\Core\Value\Kind;

/**
 * One way to read both columns of a pair, and how many of the rows that were looked at then agree.
 *
 * @phpstan-import-type Declared from DeclaredReading
 */
final readonly class FormWay
{
    /**
     * @param  Declared  $source  what the column of the source would declare
     * @param  Declared  $target
     * @param  list<bool>  $agrees  row by row
     */
    public function __construct(public Kind $kind, public array $source, public array $target, public array $agrees) {}

    public function count(): int
    {
        return count(array_filter($this->agrees));
    }

    /** @return list<int> rows that agree in this way, and not in the other */
    public function alone(self $other): array
    {
        return array_keys(
            array_filter(
                $this->agrees,
                static fn(bool $agrees, int $row): bool => $agrees && ! $other->agrees[$row],
                ARRAY_FILTER_USE_BOTH,
            ),
        );
    }
}
