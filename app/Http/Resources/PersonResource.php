<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\User;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;

/** @property User $resource */
final class PersonResource extends JsonResource
{
    public static $wrap = null;

    /** @return array{id: int, name: string, email: string, isAdministrator: bool} */
    public function toArray(Request $request): array
    {
        return [
            'id' => $this->resource->id,
            'name' => $this->resource->name,
            'email' => $this->resource->email,
            'isAdministrator' => $this->resource->is_administrator,
        ];
    }
}
