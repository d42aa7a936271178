<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

/**
 * What a plan says of a reference: its preparation, which carries what it declares about its values, and the columns that tell its records
 * apart.
 */
final readonly class ReferenceRules
{
    /** @param list<string> $key names behind the last step; empty where the plan says nothing */
    public function __construct(public Preparation $preparation = new Preparation, public array $key = []) {}

    /** @return array<string, mixed> as the plan writes it */
    public function toArray(): array
    {
        [$declared, $columns] = $this->preparation->declared->toArray();

        return [...$declared, ...array_filter(['preparation' => $this->preparation->steps, 'columns' => $columns, 'key' => $this->key])];
    }

    public function digest(): string
    {
        return hash(
            'sha256',
            json_encode([$this->preparation->digest(), $this->preparation->declared->toArray(), $this->key], JSON_THROW_ON_ERROR),
        );
    }
}
