<?php

declare(strict_types=1);

namespace App\Models;

use App\Policies\Act;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Foundation\Auth\User as Authenticatable;
use Illuminate\Support\Carbon;
use Laravel\Sanctum\HasApiTokens;

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
    /** @use HasApiTokens<Token> */
    use HasApiTokens;

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

    /** Whether the person is signed in, and not a program with a token. */
    public function isHere(): bool
    {
        return $this->accessToken === null;
    }

    /** Of somebody who is signed in everything; of a token what it was made for. */
    public function reaches(Act $act): bool
    {
        return $this->isHere() || in_array($act, Act::ofTokens(), true) && $this->tokenCan($act->value);
    }

    public function roleIn(Migration $migration): ?Role
    {
        // Asked several times by one request.
        return $this->memberships->firstWhere('migration_id', $migration->id)?->role;
    }
}
