<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Database\Eloquent\Relations\HasOne;

/**
 * The programme: a move from an old system to a new one.
 *
 * @property int $id
 * @property string $name
 * @property string $source_label
 * @property string $target_label
 * @property array{sides?: array<string, mixed>, defaults?: array<string, mixed>}|null $plan_defaults what plans of new datasets begin
 *     with
 * @property-read SigningTerms|null $signingTerms what counts for signing now
 */
final class Migration extends Model
{
    use EntersTrail;

    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = ['plan_defaults' => 'array'];

    /** @return HasMany<SourceConnection, $this> */
    public function connections(): HasMany
    {
        return $this->hasMany(SourceConnection::class);
    }

    /** @return HasMany<Webhook, $this> */
    public function webhooks(): HasMany
    {
        return $this->hasMany(Webhook::class);
    }

    /** @return HasMany<Dataset, $this> */
    public function datasets(): HasMany
    {
        return $this->hasMany(Dataset::class);
    }

    /** @return HasOne<SigningTerms, $this> what counts for signing now */
    public function signingTerms(): HasOne
    {
        return $this->hasOne(SigningTerms::class)->latestOfMany();
    }

    /** @return HasMany<Membership, $this> */
    public function memberships(): HasMany
    {
        return $this->hasMany(Membership::class);
    }
}
