<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * Work on a tally: what changes while it goes on. The tally itself is entered once, when the run is done.
 *
 * @property int $id
 * @property int $dataset_id
 * @property int $plan_version_id
 * @property int $source_delivery_id
 * @property int $target_delivery_id
 * @property RunState $state
 * @property float $done share of the work, from 0 to 1
 * @property array<string, int> $figures
 * @property array<string, string> $parameters as conditions of steps had them
 * @property array<string, int> $reference_deliveries by the names of the references
 * @property array<string, int> $matched_tallies by the names of the tables of their matched rows
 * @property array<string, array<string, int>> $record_deliveries by the names of the datasets, and side
 * @property string|null $problem
 * @property int $attempts
 * @property RunPhase|null $phase null: nobody has begun
 * @property int|null $entering_tally_id what its findings are loaded for, from merging on
 * @property Carbon|null $cancel_requested_at
 * @property int|null $tally_id
 * @property string|null $name what its tally shall be called
 * @property int $user_id
 * @property Carbon $created_at
 * @property Carbon|null $started_at
 * @property Carbon|null $finished_at
 * @property-read Dataset $dataset
 * @property-read PlanVersion $planVersion
 * @property-read Delivery $sourceDelivery
 * @property-read Delivery $targetDelivery
 * @property-read SigningTerms|null $signingTerms
 * @property-read User $user
 */
final class Run extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = [
        'state' => RunState::class,
        'done' => 'float',
        'figures' => 'array',
        'parameters' => 'array',
        'reference_deliveries' => 'array',
        'matched_tallies' => 'array',
        'record_deliveries' => 'array',
        'attempts' => 'integer',
        'phase' => RunPhase::class,
        'cancel_requested_at' => 'immutable_datetime',
        'started_at' => 'immutable_datetime',
        'finished_at' => 'immutable_datetime',
    ];

    /** @return BelongsTo<Dataset, $this> */
    public function dataset(): BelongsTo
    {
        return $this->belongsTo(Dataset::class);
    }

    /** @return BelongsTo<PlanVersion, $this> */
    public function planVersion(): BelongsTo
    {
        return $this->belongsTo(PlanVersion::class);
    }

    /** @return BelongsTo<Delivery, $this> */
    public function sourceDelivery(): BelongsTo
    {
        return $this->belongsTo(Delivery::class);
    }

    /** @return BelongsTo<Delivery, $this> */
    public function targetDelivery(): BelongsTo
    {
        return $this->belongsTo(Delivery::class);
    }

    /** @return BelongsTo<SigningTerms, $this> those of the migration when it began */
    public function signingTerms(): BelongsTo
    {
        return $this->belongsTo(SigningTerms::class);
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
