<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasOne;
use Illuminate\Support\Carbon;

/**
 * Something that somebody did at the door, or that left the house. Entries are only added.
 *
 * @property int $id
 * @property TrailAct $act
 * @property int|null $user_id null where nobody is known
 * @property int|null $migration_id
 * @property string $detail_digest SHA-256 of what it says, with a salt
 * @property Carbon $created_at
 * @property-read User|null $user
 * @property-read TrailLink|null $link
 * @property-read TrailDetail|null $detail null where it was purged
 */
final class TrailEntry extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = ['act' => TrailAct::class];

    /** @return HasOne<TrailDetail, $this> */
    public function detail(): HasOne
    {
        return $this->hasOne(TrailDetail::class, 'entry_id');
    }

    /** @return HasOne<TrailLink, $this> its place in the chain; null while it is not linked */
    public function link(): HasOne
    {
        return $this->hasOne(TrailLink::class, 'entry_id');
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
