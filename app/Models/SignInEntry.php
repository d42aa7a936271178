<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * A session of a person from the sign-in to its end. The session itself knows the id of its entry; where the entry has ended, so has it.
 *
 * @property int $id
 * @property int $user_id
 * @property string $address of the network
 * @property string $agent what the browser calls itself
 * @property Carbon $created_at
 * @property Carbon $seen_at
 * @property Carbon|null $ended_at
 */
final class SignInEntry extends Model
{
    public const UPDATED_AT = null;

    protected $table = 'sign_ins';

    protected $guarded = [];

    protected $casts = ['user_id' => 'integer', 'seen_at' => 'immutable_datetime', 'ended_at' => 'immutable_datetime'];

    /** @return Builder<self> those that go on */
    public static function goingOn(int $userId): Builder
    {
        return self::query()->where('user_id', $userId)->whereNull('ended_at');
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
