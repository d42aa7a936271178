<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\Migration;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;

/** @property Migration $resource */
final class MigrationResource extends JsonResource
{
    public static $wrap = null;

    /** @return array{id: int, name: string, sourceLabel: string, targetLabel: string} */
    public function toArray(Request $request): array
    {
        return [
            'id' => $this->resource->id,
            'name' => $this->resource->name,
            'sourceLabel' => $this->resource->source_label,
            'targetLabel' => $this->resource->target_label,
        ];
    }
}
