<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\Dataset;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;

/** @property Dataset $resource */
final class DatasetResource extends JsonResource
{
    public static $wrap = null;

    /** @return array{id: int, name: string} */
    public function toArray(Request $request): array
    {
        return ['id' => $this->resource->id, 'name' => $this->resource->name];
    }
}
