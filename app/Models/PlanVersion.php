<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\HasOne;
use NineTally\Core\Limits\Limit;
use NineTally\Core\Plan\Plan;

/**
 * @property int $id
 * @property int $dataset_id
 * @property int $number
 * @property string $document canonical JSON (RFC 8785)
 * @property string $digest
 * @property int $user_id
 * @property \Illuminate\Support\Carbon $created_at
 * @property-read PurgedPlan|null $purged
 */
final class PlanVersion extends Model
{
    use EntersTrail;

    public const UPDATED_AT = null;

    protected $guarded = [];

    /** @var array{string, Plan}|null the document that was read last, and its plan */
    private static ?array $last = null;

    /** @return list<Limit> without reading all of the plan */
    public function limits(): array
    {
        /** @var array{limits?: list<array{figure: string, of?: string, worst: string|null}>} $document */
        $document = json_decode($this->document, true, 64, JSON_THROW_ON_ERROR);

        return array_map(Limit::fromArray(...), $document['limits'] ?? []);
    }

    /** @return HasOne<PurgedPlan, $this> that the values which it held are gone */
    public function purged(): HasOne
    {
        return $this->hasOne(PurgedPlan::class);
    }

    /** A worker asks for the same one with each of its tasks, and to read it takes longer than many of them. */
    public function plan(): Plan
    {
        if (self::$last === null || self::$last[0] !== $this->document) {
            self::$last = [$this->document, Plan::fromJson($this->document)];
        }

        return self::$last[1];
    }
}
