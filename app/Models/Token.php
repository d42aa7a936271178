<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Support\Carbon;
use Laravel\Sanctum\PersonalAccessToken;

/**
 * What a program shows to speak in somebody's name. Only a digest of it is kept.
 *
 * @property int $id
 * @property string $name what it is for
 * @property list<string> $abilities acts that it was made for
 * @property User|null $tokenable
 * @property Carbon $created_at
 * @property Carbon|null $last_used_at
 * @property Carbon $expires_at
 */
final class Token extends PersonalAccessToken
{
    protected $table = 'tokens';
}
