<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\Workbook;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;

/** @property-read Workbook $resource */
final class WorkbookResource extends JsonResource
{
    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        $workbook = $this->resource;

        return [
            'id' => $workbook->id,
            'datasetId' => $workbook->dataset_id,
            'name' => $workbook->name,
            'state' => $workbook->state,
            'rows' => $workbook->rows,
            'done' => $workbook->done,
            'total' => $workbook->total,
            'problem' => $workbook->problem,
        ];
    }
}
