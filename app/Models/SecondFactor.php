<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Carbon;

/**
 * What somebody shows beside the password: the secret of their authenticator, encrypted with the key of the installation.
 *
 * @property int $user_id
 * @property string $secret as hexadecimal digits
 * @property int $last_step of the code that was taken last
 * @property Carbon|null $confirmed_at null until the first code was right: before that it asks for nothing
 */
final class SecondFactor extends Model
{
    public const UPDATED_AT = null;

    public $incrementing = false;

    protected $primaryKey = 'user_id';

    protected $guarded = [];

    protected $hidden = ['secret'];

    protected $casts = ['secret' => 'encrypted', 'last_step' => 'integer', 'confirmed_at' => 'immutable_datetime'];

    public static function of(User $person): ?self
    {
        return self::query()->whereNotNull('confirmed_at')->find($person->id);
    }
}
