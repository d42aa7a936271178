<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A tally whose findings went with a delivery that it had read. Its figures, rulings and signatures stay.
 *
 * @property int $tally_id
 * @property int $purge_id
 * @property-read Purge $purge
 */
final class PurgedTally extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $primaryKey = 'tally_id';

    protected $guarded = [];

    /** @return BelongsTo<Purge, $this> */
    public function purge(): BelongsTo
    {
        return $this->belongsTo(Purge::class);
    }
}
