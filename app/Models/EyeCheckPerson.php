<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * Somebody who was given a sample to look at.
 *
 * @property int $eye_check_id
 * @property int $user_id
 * @property int $given_by
 * @property-read User $user
 */
final class EyeCheckPerson extends Model
{
    use EntersTrail;

    public const UPDATED_AT = null;

    protected $guarded = [];

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
