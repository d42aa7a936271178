<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * A way in for one person, by a link that ends. Of the link only the digest is kept.
 *
 * @property int $id
 * @property string $name
 * @property string $email
 * @property int|null $migration_id
 * @property Role|null $role
 * @property bool $is_administrator
 * @property string $token_hash SHA-256
 * @property int $by_id
 * @property Carbon $created_at
 * @property Carbon $expires_at
 * @property Carbon|null $ended_at when it was used or withdrawn
 * @property int|null $user_id who came by it
 * @property-read Migration|null $migration
 * @property-read User $by
 */
final class Invitation extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = [
        'role' => Role::class,
        'is_administrator' => 'boolean',
        'expires_at' => 'immutable_datetime',
        'ended_at' => 'immutable_datetime',
    ];

    /** @return Builder<self> those that can be used */
    public static function open(): Builder
    {
        return self::query()->whereNull('ended_at')->where('expires_at', '>', now());
    }

    /** @return BelongsTo<Migration, $this> */
    public function migration(): BelongsTo
    {
        return $this->belongsTo(Migration::class);
    }

    /** @return BelongsTo<User, $this> */
    public function by(): BelongsTo
    {
        return $this->belongsTo(User::class, 'by_id');
    }
}
