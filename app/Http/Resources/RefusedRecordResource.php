<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\RefusedRecord;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;

/** @property RefusedRecord $resource */
final class RefusedRecordResource extends JsonResource
{
    public static $wrap = null;

    /** @return array{number: int, part: int, line: int, reason: string, sentence: string, raw: string} */
    public function toArray(Request $request): array
    {
        return [
            'number' => $this->resource->number,
            'part' => $this->resource->part,
            'line' => $this->resource->line,
            'reason' => $this->resource->reason->value,
            'sentence' => $this->resource->sentence(),
            'raw' => $this->resource->raw,
        ];
    }
}
