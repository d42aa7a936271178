<?php

declare(strict_types=1);

namespace NineTally\Core\Repeats;

use NineTally\Core\Value\Kind;

/** A second column, which decides where the first one does not. */
final readonly class DecidingColumn
{
    public function __construct(public string $column, public Kind $kind = Kind::Text, public bool $keepsHighest = true) {}

    /** @return array<string, string> as the plan writes it */
    public function toArray(): array
    {
        return ['column' => $this->column, 'kind' => $this->kind->value, 'keeps' => $this->keepsHighest ? 'highest' : 'lowest'];
    }
}
