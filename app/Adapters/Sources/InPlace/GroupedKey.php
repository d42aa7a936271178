<?php

declare(strict_types=1);

namespace App\Adapters\Sources\InPlace;

/** How the rows of one side are put into groups, so that those of the other side with the same key are in the same group. */
final readonly class GroupedKey
{
    /**
     * @param  non-empty-list<string>  $key  columns of this side, in the order of the plan
     * @param  list<string>  $columns  those that are compared, in the order of the plan
     * @param  int  $groups  how many there are
     */
    public function __construct(public array $key, public array $columns, public int $groups) {}

    /** @return non-empty-list<string> */
    public function all(): array
    {
        return [...$this->key, ...$this->columns];
    }
}
