<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

use NineTally\Core\Matching\KeyForm;

/** One writing for the keys of a side, as they would be if some rungs were taken. */
final readonly class LadderForm
{
    /** @param array<int, array<array-key, string>> $entries of crosswalks, by column */
    public function __construct(private KeyForm $form, private array $entries) {}

    /** @param list<string> $key */
    public function canonical(array $key): string
    {
        foreach ($this->entries as $column => $entries) {
            $key[$column] = $entries[$key[$column]] ?? $key[$column];
        }

        return $this->form->canonical(array_values($key));
    }
}
