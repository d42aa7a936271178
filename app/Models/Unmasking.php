<?php

declare(strict_types=1);

namespace App\Models;

use Carbon\CarbonImmutable;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * Somebody had the sensitive values of a dataset shown, or masked again. Kept for ever; the newest of a person says what holds.
 *
 * @property int $id
 * @property int $dataset_id
 * @property int $user_id
 * @property CarbonImmutable $created_at
 * @property CarbonImmutable $until when the values are masked again
 * @property-read User $user
 */
final class Unmasking extends Model
{
    public const UPDATED_AT = null;

    /** Long enough for a look through a pattern, short enough to be asked for on purpose. */
    public const MINUTES = 60;

    protected $guarded = [];

    protected $casts = ['created_at' => 'immutable_datetime', 'until' => 'immutable_datetime'];

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
