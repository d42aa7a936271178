<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A browser that somebody has signed in from: what it was given is kept as a digest alone.
 *
 * @property int $id
 * @property int $user_id
 * @property string $digest
 */
final class KnownDevice extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    public static function digest(#[\SensitiveParameter] string $token): string
    {
        return hash('sha256', $token);
    }

    /** Whether the person has signed in from where the token is. */
    public static function isOf(?User $person, #[\SensitiveParameter] string $token): bool
    {
        return $person !== null &&
            $token !== '' &&
            self::query()->where(['user_id' => $person->id, 'digest' => self::digest($token)])->exists();
    }
}
