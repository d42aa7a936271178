<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * The programme: a move from an old system to a new one.
 *
 * @property int $id
 * @property string $name
 * @property string $source_label
 * @property string $target_label
 */
final class Migration extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    /** @return HasMany<Dataset, $this> */
    public function datasets(): HasMany
    {
        return $this->hasMany(Dataset::class);
    }

    /** @return HasMany<Membership, $this> */
    public function memberships(): HasMany
    {
        return $this->hasMany(Membership::class);
    }
}
