<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * Stands for a code of the authenticator once, where that is lost. It was shown once, and is kept as a digest.
 *
 * @property int $id
 * @property int $user_id
 * @property string $digest
 */
final class RecoveryCode extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    public static function digest(#[\SensitiveParameter] string $code): string
    {
        return hash('sha256', mb_strtolower((string) preg_replace('/[^0-9a-z]/i', '', $code)));
    }
}
