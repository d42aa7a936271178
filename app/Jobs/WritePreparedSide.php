<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Adapters\Deliveries\PreparationInputs;
use App\Adapters\Deliveries\PreparedSides;
use App\Adapters\Storage\WorkbookFiles;
use App\Models\Delivery;
use App\Models\User;
use App\Queries\Prepare\PreparedRows;
use App\Queries\Review\Masks;
use NineTally\Core\Plan\SideRules;

/** A prepared side as a workbook. */
final class WritePreparedSide extends WriteWorkbook
{
    public function __construct(
        string $workbookId,
        private readonly int $deliveryId,
        private readonly SideRules $rules,
        private readonly PreparationInputs $inputs,
        private readonly int $personId,
    ) {
        parent::__construct($workbookId);
    }

    public function handle(WorkbookFiles $files, PreparedSides $sides, PreparedRows $rows, Masks $masks): void
    {
        $workbook = $this->workbook();
        if ($workbook === null) {
            return;
        }
        $delivery = Delivery::query()->with('parts')->findOrFail($this->deliveryId);
        // What is masked for the person now is masked, whatever was shown when it was asked for.
        $mask = $masks->through(
            $delivery->dataset,
            $delivery->side,
            $this->rules->preparation,
            User::query()->findOrFail($this->personId),
        );
        $reader = $sides->reader($delivery, $this->rules, $this->inputs);
        $files->write($workbook, $reader->columns()->names, $rows->cells($reader, $mask), $reader->bytes());
    }
}
