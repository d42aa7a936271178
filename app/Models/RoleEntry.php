<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * That somebody was given a role in a migration, or that it ended. Entries are only added: they say who had which role when.
 *
 * @property int $id
 * @property int $migration_id
 * @property int $user_id
 * @property Role|null $role null when it ended
 * @property int|null $by_id
 * @property Carbon $created_at
 * @property-read User $user
 * @property-read User|null $by
 * @property-read Migration $migration
 */
final class RoleEntry extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = ['role' => Role::class];

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }

    /** @return BelongsTo<User, $this> */
    public function by(): BelongsTo
    {
        return $this->belongsTo(User::class, 'by_id');
    }

    /** @return BelongsTo<Migration, $this> */
    public function migration(): BelongsTo
    {
        return $this->belongsTo(Migration::class);
    }
}
