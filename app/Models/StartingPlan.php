<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A plan that is kept by a name, to be used for other datasets of the migration.
 *
 * @property int $id
 * @property int $migration_id
 * @property string $name
 * @property string $document canonical JSON
 * @property-read User $user
 */
final class StartingPlan extends Model
{
    use EntersTrail;

    public const UPDATED_AT = null;

    protected $guarded = [];

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
