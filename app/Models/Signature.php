<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * A signature on a tally, or an act that takes the signatures before it back. Only added.
 *
 * @property int $id
 * @property int $tally_id
 * @property SignatureAct $act
 * @property int $user_id
 * @property Role $role that the person had
 * @property string $method how it was shown that it was them, such as "password"
 * @property string $words what was signed, in one sentence
 * @property string $reason of what takes signatures back
 * @property string|null $digest SHA-256 of the signed state
 * @property Carbon $created_at
 * @property-read User $user
 * @property-read Tally $tally
 */
final class Signature extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = ['act' => SignatureAct::class, 'role' => Role::class];

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }

    /** @return BelongsTo<Tally, $this> */
    public function tally(): BelongsTo
    {
        return $this->belongsTo(Tally::class);
    }
}
