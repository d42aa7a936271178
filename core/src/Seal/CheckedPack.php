<?php

declare(strict_types=1);

namespace NineTally\Core\Seal;

/** What fits in a pack and what does not, to the file. */
final readonly class CheckedPack
{
    /**
     * @param  list<CheckLine>  $lines
     * @param  string|null  $fingerprint  of the key that it is sealed with
     */
    public function __construct(public array $lines, public ?string $fingerprint = null) {}

    public function fits(): bool
    {
        return array_filter($this->lines, static fn(CheckLine $line): bool => $line->state === 'differs') === [];
    }
}
