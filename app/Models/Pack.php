<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasOne;
use Illuminate\Support\Carbon;

/**
 * An evidence pack of a tally, kept by the digest of its bytes.
 *
 * @property int $id
 * @property int $tally_id
 * @property int $number of the tally's packs, from 1
 * @property string $digest SHA-256 of the zip
 * @property int $bytes
 * @property bool $has_clear_values whether deliveries and sensitive values are in it
 * @property Carbon $created_at
 * @property-read Tally $tally
 * @property-read SealEntry $seal
 * @property-read User $user
 */
final class Pack extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = ['has_clear_values' => 'boolean', 'bytes' => 'integer', 'number' => 'integer'];

    /** @return BelongsTo<Tally, $this> */
    public function tally(): BelongsTo
    {
        return $this->belongsTo(Tally::class);
    }

    /** @return BelongsTo<SealEntry, $this> */
    public function seal(): BelongsTo
    {
        return $this->belongsTo(SealEntry::class, 'seal_id');
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }

    /** @return HasOne<RemovedPack, $this> that the zip is no longer kept */
    public function removed(): HasOne
    {
        return $this->hasOne(RemovedPack::class);
    }
}
