<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * What people call a tally from then on. Entries are only added: the newest holds.
 *
 * @property int $id
 * @property int $tally_id
 * @property string $name such as "Rehearsal 3"; '' takes the name away
 * @property string $remark
 * @property int $user_id
 * @property Carbon $created_at
 * @property-read User $user
 */
final class TallyName extends Model
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
