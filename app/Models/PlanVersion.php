<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use NineTally\Core\Plan\Plan;

/**
 * @property int $id
 * @property int $number
 * @property string $document canonical JSON (RFC 8785)
 * @property string $digest
 * @property int $user_id
 * @property \Illuminate\Support\Carbon $created_at
 */
final class PlanVersion extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    public function plan(): Plan
    {
        return Plan::fromJson($this->document);
    }
}
