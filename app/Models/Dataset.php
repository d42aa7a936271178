<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Database\Eloquent\Relations\HasOne;
use NineTally\Core\Row\Side;

/**
 * One table of the migration, with a source side and a target side.
 *
 * @property int $id
 * @property int $migration_id
 * @property string $name
 * @property array<string, string> $parameters that conditions of steps ask for
 * @property bool $runs_on_delivery whether a new delivery is tallied by itself
 * @property-read Migration $migration
 * @property-read PlanDraft|null $draft
 */
final class Dataset extends Model
{
    use EntersTrail;

    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = ['parameters' => 'array', 'runs_on_delivery' => 'boolean'];

    protected $attributes = ['parameters' => '{}', 'runs_on_delivery' => false];

    /** @return BelongsTo<Migration, $this> */
    public function migration(): BelongsTo
    {
        return $this->belongsTo(Migration::class);
    }

    /** @return HasMany<Delivery, $this> */
    public function deliveries(): HasMany
    {
        return $this->hasMany(Delivery::class);
    }

    /** @return HasMany<Receipt, $this> */
    public function receipts(): HasMany
    {
        return $this->hasMany(Receipt::class);
    }

    /** @return HasOne<PlanDraft, $this> */
    public function draft(): HasOne
    {
        return $this->hasOne(PlanDraft::class);
    }

    /** The draft as it is now, to be looked at: it may be megabytes, and is read again only when it has changed. */
    public function draftNow(): ?PlanDraft
    {
        return PlanDraft::asItStands($this->id);
    }

    /** @return HasMany<PlanVersion, $this> */
    public function planVersions(): HasMany
    {
        return $this->hasMany(PlanVersion::class);
    }

    /** @return HasMany<Run, $this> */
    public function runs(): HasMany
    {
        return $this->hasMany(Run::class);
    }

    /** @return HasMany<Waiver, $this> in the order in which they were given */
    public function waivers(): HasMany
    {
        return $this->hasMany(Waiver::class)->orderBy('id');
    }

    /** @return HasMany<Tally, $this> */
    public function tallies(): HasMany
    {
        return $this->hasMany(Tally::class);
    }

    /** @return HasMany<CorrectionSet, $this> named as the address names them */
    public function sets(): HasMany
    {
        return $this->hasMany(CorrectionSet::class);
    }

    public function latestDelivery(Side $side): ?Delivery
    {
        return $this->deliveries()->where('side', $side->value)->orderByDesc('number')->first();
    }

    public function latestTally(): ?Tally
    {
        return $this->tallies()->orderByDesc('number')->first();
    }

    public function latestRun(): ?Run
    {
        return $this->runs()->orderByDesc('id')->first();
    }
}
