<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Carbon;

/**
 * A seal over a pack. Each names the one before it, so that none can be taken out or put in between.
 *
 * @property int $id
 * @property string $digest SHA-256 of the statement
 * @property string $statement canonical JSON (RFC 8785)
 * @property string $signature Ed25519, in base64
 * @property string $key_fingerprint
 * @property int|null $previous_id
 * @property Carbon $created_at
 */
final class SealEntry extends Model
{
    public const UPDATED_AT = null;

    protected $table = 'seals';

    protected $guarded = [];
}
