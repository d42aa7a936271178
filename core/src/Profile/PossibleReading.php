<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

use NineTally\Core\Value\DeclaredReading;
use NineTally\Core\Value\Kind;

/**
 * A kind as which the values of a column could be read, and what would have to be declared for it.
 *
 * @phpstan-import-type Declared from DeclaredReading
 *
 * @phpstan-type ReadingDocument array{kind: string, declares: Declared, unread: int, isWeak: bool}
 */
final readonly class PossibleReading
{
    /**
     * @param  Declared  $declared
     * @param  int  $unread  different values that could not be read so
     * @param  array{string, string}|null  $range  the least and the greatest value, as it orders them
     * @param  bool  $isWeak  whether the values alone give no reason for it: 20260131 is a number until the other side has dates
     */
    public function __construct(
        public Kind $kind,
        public array $declared,
        public int $unread = 0,
        public ?array $range = null,
        public bool $isWeak = false,
    ) {}

    /** @return ReadingDocument */
    public function toArray(): array
    {
        return ['kind' => $this->kind->value, 'declares' => $this->declared, 'unread' => $this->unread, 'isWeak' => $this->isWeak];
    }
}
