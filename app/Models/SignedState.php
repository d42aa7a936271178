<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * What was shown to whoever signed, byte for byte.
 *
 * @property string $digest SHA-256 of the content
 * @property string $content canonical JSON (RFC 8785)
 */
final class SignedState extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $primaryKey = 'digest';

    protected $keyType = 'string';

    protected $guarded = [];

    /** Two signatures on the same state share it. */
    public static function keep(string $content): string
    {
        $digest = hash('sha256', $content);
        self::query()->insertOrIgnore(['digest' => $digest, 'content' => $content]);

        return $digest;
    }
}
