<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Adapters\Deliveries\PreparationInputs;
use App\Adapters\Deliveries\PreparedSides;
use App\Adapters\Storage\WorkbookFiles;
use App\Models\Delivery;
use App\Queries\Prepare\PreparedRows;
use NineTally\Core\Plan\SideRules;

/** A prepared side as a workbook. */
final class WritePreparedSide extends WriteWorkbook
{
    public function __construct(
        string $workbookId,
        private readonly int $deliveryId,
        private readonly SideRules $rules,
        private readonly PreparationInputs $inputs,
    ) {
        parent::__construct($workbookId);
    }

    public function handle(WorkbookFiles $files, PreparedSides $sides, PreparedRows $rows): void
    {
        $workbook = $this->workbook();
        if ($workbook === null) {
            return;
        }
        $reader = $sides->reader(Delivery::query()->with('parts')->findOrFail($this->deliveryId), $this->rules, $this->inputs);
        $files->write($workbook, $reader->columns()->names, $rows->cells($reader), $reader->bytes());
    }
}
