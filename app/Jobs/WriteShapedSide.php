<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Adapters\Deliveries\ShapedSides;
use App\Adapters\Deliveries\ShapeInputs;
use App\Adapters\Storage\WorkbookFiles;
use App\Models\Delivery;
use App\Queries\Shape\ShapedRows;
use NineTally\Core\Plan\SideRules;

/** A shaped side as a workbook. */
final class WriteShapedSide extends WriteWorkbook
{
    public function __construct(string $workbookId, private readonly int $deliveryId, private readonly SideRules $rules, private readonly ShapeInputs $inputs)
    {
        parent::__construct($workbookId);
    }

    public function handle(WorkbookFiles $files, ShapedSides $sides, ShapedRows $rows): void
    {
        $workbook = $this->workbook();
        if ($workbook === null) {
            return;
        }
        $reader = $sides->reader(Delivery::query()->with('parts')->findOrFail($this->deliveryId), $this->rules, $this->inputs);
        $files->write($workbook, $reader->columns()->names, $rows->cells($reader), $reader->bytes());
    }
}
