<?php

declare(strict_types=1);

namespace App\Queries\Review;

use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/** What is kept from somebody of lines that have columns of both sides. */
final readonly class ListMask
{
    /** @var Sides<list<bool>> by place: whether the column is hidden */
    private Sides $hidden;

    /**
     * @param  list<array{name: string, source: string|null, target: string|null}>  $columns
     * @param  Sides<SideMask>  $masks
     */
    public function __construct(array $columns, Sides $masks)
    {
        $this->hidden = Sides::each(static fn(Side $side): array => array_map(
            static fn(array $column): bool => $column[$side->value] !== null && $masks->of($side)->hidesPrepared($column[$side->value]),
            $columns,
        ));
    }

    /**
     * @param  'source'|'target'  $side
     * @param  list<string>  $cells
     * @return list<string>
     */
    public function cells(string $side, array $cells): array
    {
        return array_map(
            static fn(string $cell, bool $isHidden): string => $cell !== '' && $isHidden ? Mask::VALUE : $cell,
            $cells,
            $this->hidden->of(Side::from($side)),
        );
    }
}
