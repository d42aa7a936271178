<?php

declare(strict_types=1);

namespace NineTally\Core\Comparison;

/** Where a row ended up: each delivered row lands in exactly one class. */
enum RowClass: string
{
    case Agreed = 'agreed';
    case Changed = 'changed';
    case Missing = 'missing';
    case Extra = 'extra';
    case Repeated = 'repeated';
    case Unkeyed = 'unkeyed';
    case Refused = 'refused';

    /** A changed row is explained by its cells, an agreed one needs no explanation. */
    public function isFinding(): bool
    {
        return match ($this) {
            self::Agreed, self::Changed => false,
            self::Missing, self::Extra, self::Repeated, self::Unkeyed, self::Refused => true,
        };
    }

    public function sentence(): string
    {
        return match ($this) {
            self::Agreed => 'every compared cell agrees',
            self::Changed => 'at least one compared cell differs',
            self::Missing => 'in the source, not in the target',
            self::Extra => 'in the target, not in the source',
            self::Repeated => 'shares its key with another row',
            self::Unkeyed => 'has no key: every key cell is blank',
            self::Refused => 'could not be read',
        };
    }
}
