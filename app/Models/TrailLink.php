<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * The place of an entry in the chain of the trail.
 *
 * @property int $place from 1, without gaps
 * @property int $entry_id
 * @property string $digest over the digest before and the entry
 * @property-read TrailEntry $entry
 */
final class TrailLink extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $primaryKey = 'place';

    protected $guarded = [];

    /** @return BelongsTo<TrailEntry, $this> */
    public function entry(): BelongsTo
    {
        return $this->belongsTo(TrailEntry::class);
    }
}
