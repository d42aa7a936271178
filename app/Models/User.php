<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Foundation\Auth\User as Authenticatable;
use Illuminate\Support\Carbon;

/**
 * @property int $id
 * @property string $name
 * @property string $email
 * @property bool $is_administrator
 * @property bool $is_demo
 * @property Carbon|null $locked_at
 */
final class User extends Authenticatable
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $hidden = ['password'];

    // There is no "remember me": a session ends with the working day.
    protected $rememberTokenName = '';

    protected $casts = [
        'password' => 'hashed',
        'is_administrator' => 'boolean',
        'is_demo' => 'boolean',
        'locked_at' => 'immutable_datetime',
    ];

    /** @return HasMany<Membership, $this> */
    public function memberships(): HasMany
    {
        return $this->hasMany(Membership::class);
    }

    /** @return Builder<self> whoever has the address, however it is capitalised */
    public static function withEmail(string $email): Builder
    {
        return self::query()->whereRaw('lower(email) = lower(?)', [$email]);
    }

    public function roleIn(Migration $migration): ?Role
    {
        // Asked several times by one request.
        return $this->memberships->firstWhere('migration_id', $migration->id)?->role;
    }
}
