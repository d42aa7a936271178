<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * Why a claim of the deliverer does not hold. The newest one of a claim stands; none is ever changed.
 *
 * @property int $delivery_id
 * @property int $claim its place among the claims of the delivery, from 0
 * @property string $explanation
 * @property Carbon $explained_at
 * @property-read User $user
 */
final class ClaimExplanation extends Model
{
    use EntersTrail;

    public $timestamps = false;

    protected $guarded = [];

    protected $casts = ['claim' => 'integer', 'explained_at' => 'immutable_datetime'];

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
