<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * Something that somebody did at the door, or that left the house. Entries are only added.
 *
 * @property int $id
 * @property TrailAct $act
 * @property int|null $user_id null where nobody is known
 * @property int|null $migration_id
 * @property string $about in words; never a value of a cell
 * @property string $address of the network
 * @property Carbon $created_at
 * @property-read User|null $user
 */
final class TrailEntry extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = ['act' => TrailAct::class];

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
