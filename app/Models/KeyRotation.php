<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * That the key of seals was changed.
 *
 * @property int $id
 * @property string $from_fingerprint
 * @property string $to_fingerprint
 * @property string|null $statement canonical JSON (RFC 8785), said by the old key; null where somebody else may have had it
 * @property string|null $signature Ed25519 under the old key, in base64
 * @property string $reason
 * @property \Illuminate\Support\Carbon $created_at
 * @property-read SealKeyEntry $old
 * @property-read User $user
 */
final class KeyRotation extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    /** @return BelongsTo<SealKeyEntry, $this> */
    public function old(): BelongsTo
    {
        return $this->belongsTo(SealKeyEntry::class, 'from_fingerprint');
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
