<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

/** Where in a sheet its table stands. */
final readonly class SheetPlace
{
    /**
     * @param  int  $headerRow  from 1
     * @param  int  $skipBelow  rows that hold something and stand below the table
     * @param  int  $skipLeft  columns that stand blank to the left of it
     */
    public function __construct(public int $headerRow = 1, public int $skipBelow = 0, public int $skipLeft = 0) {}

    /** @return array{headerRow: int, skipBelow?: int, skipLeft?: int} what is nought is not told */
    public function toArray(): array
    {
        return ['headerRow' => $this->headerRow] + array_filter(['skipBelow' => $this->skipBelow, 'skipLeft' => $this->skipLeft]);
    }
}
