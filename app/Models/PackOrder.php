<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * That somebody waits for a pack.
 *
 * @property int $id
 * @property int $tally_id
 * @property bool $has_clear_values
 * @property string $state queued, packing, done or failed
 * @property string|null $problem
 * @property int|null $pack_id
 * @property int $user_id
 * @property-read Tally $tally
 * @property-read User $user
 */
final class PackOrder extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = ['has_clear_values' => 'boolean'];

    /** @return BelongsTo<Tally, $this> */
    public function tally(): BelongsTo
    {
        return $this->belongsTo(Tally::class);
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
