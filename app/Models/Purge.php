<?php

declare(strict_types=1);

namespace App\Models;

use Carbon\CarbonImmutable as Carbon;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasOne;

/**
 * That the content of a delivery was purged, and with it every copy: by whom, when and why. What it was known by (name, hash, counts)
 * stays.
 *
 * @phpstan-type Removed array{files: int, bytes: int, refused: int, tallies: int, findings: int, reports: int, packs: int, links: int,
 *     corrections: int, comments: int, planValues: int}
 *
 * @property int $id
 * @property int $migration_id
 * @property int $delivery_id
 * @property string $reason
 * @property bool $was_due whether the rule of the migration asked for it
 * @property Removed $removed
 * @property int $user_id
 * @property Carbon $created_at
 * @property-read Delivery $delivery
 * @property-read User $user
 * @property-read PurgeEnd|null $end null while its files are being removed
 */
final class Purge extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = ['was_due' => 'boolean', 'removed' => 'array', 'created_at' => 'immutable_datetime'];

    /** @return BelongsTo<Delivery, $this> */
    public function delivery(): BelongsTo
    {
        return $this->belongsTo(Delivery::class);
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }

    /** @return HasOne<PurgeEnd, $this> */
    public function end(): HasOne
    {
        return $this->hasOne(PurgeEnd::class);
    }

    /** @return array{by: string, at: string, reason: string} as everybody may see it */
    public function told(): array
    {
        return ['by' => $this->user->name, 'at' => $this->created_at->toIso8601ZuluString(), 'reason' => $this->reason];
    }
}
