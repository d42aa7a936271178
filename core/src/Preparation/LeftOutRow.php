<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

use NineTally\Core\Row\RecordPlace;

/** A row that a step left out, as it came into the step. */
final readonly class LeftOutRow
{
    /**
     * @param  int  $step  its number, from 1
     * @param  list<string>  $cells  under the columns that came into the step
     * @param  int|null  $keptInstead  the packed place of the row of its key that stayed, where the step keeps one of each key
     */
    public function __construct(public int $packedPlace, public int $step, public array $cells, public ?int $keptInstead = null) {}

    public function place(): RecordPlace
    {
        return RecordPlace::ofPacked($this->packedPlace);
    }
}
