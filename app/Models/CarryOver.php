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
 * @property int $beyond those that are open again because their pattern has more cells than the ruling was meant for
 * @property int $taken_on findings that nobody had ruled on, and that a ruling for tallies to come covers
 * @property bool $has_other_key whether the key was another one, so that findings were known by their records
 * @property-read Tally $from
 */
final class CarryOver extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $primaryKey = 'tally_id';

    protected $guarded = [];

    protected $casts = [
        'ruled' => 'integer',
        'carried' => 'integer',
        'changed' => 'integer',
        'beyond' => 'integer',
        'taken_on' => 'integer',
        'has_other_key' => 'boolean',
    ];

    /** Those whose finding is not here any more: settled, or not to be placed under another key. */
    public function gone(): int
    {
        return $this->ruled - $this->carried - $this->changed - $this->beyond;
    }

    /** @return 'data'|'plan'|'either' by what findings that are not here any more were settled */
    public function settledBy(Tally $tally): string
    {
        $deliveries = static fn(Tally $of): array => [$of->source_delivery_id, $of->target_delivery_id];

        return match (true) {
            $this->from->plan_version_id === $tally->plan_version_id => 'data',
            $deliveries($this->from) === $deliveries($tally) => 'plan',
            default => 'either',
        };
    }

    /** @return BelongsTo<Tally, $this> */
    public function from(): BelongsTo
    {
        return $this->belongsTo(Tally::class, 'from_tally_id');
    }
}
