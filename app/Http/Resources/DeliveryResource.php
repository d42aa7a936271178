<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\Delivery;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;

/** @property Delivery $resource */
final class DeliveryResource extends JsonResource
{
    public static $wrap = null;

    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        return [
            'id' => $this->resource->id,
            'side' => $this->resource->side->value,
            'number' => $this->resource->number,
            'fileName' => $this->resource->file_name,
            'digest' => $this->resource->digest,
            'bytes' => $this->resource->bytes,
            'format' => $this->resource->delimitedFormat()->toArray(),
            'columns' => $this->resource->columns,
            'read' => $this->resource->read_count,
            'refused' => $this->resource->refused_count,
            'delivered' => $this->resource->delivered_count,
            'deliveredBy' => $this->resource->user->name,
            'deliveredAt' => $this->resource->delivered_at->toIso8601ZuluString(),
        ];
    }
}
