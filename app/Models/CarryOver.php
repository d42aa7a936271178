<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * What became of the rulings of the tally before.
 *
 * @property int $tally_id
 * @property int $ruled findings that were ruled on there
 * @property int $carried of them, those whose ruling stands here
 * @property int $changed those that are here with other values, and so open again
 * @property bool $has_other_key whether the key was another one, so that findings were known by their records
 * @property-read Tally $from
 */
final class CarryOver extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $primaryKey = 'tally_id';

    protected $guarded = [];

    protected $casts = ['ruled' => 'integer', 'carried' => 'integer', 'changed' => 'integer', 'has_other_key' => 'boolean'];

    /** @return BelongsTo<Tally, $this> */
    public function from(): BelongsTo
    {
        return $this->belongsTo(Tally::class, 'from_tally_id');
    }
}
