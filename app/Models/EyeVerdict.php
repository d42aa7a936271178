<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * What somebody said of a row of a sample; what they said last stands.
 *
 * @property int $id
 * @property int $eye_check_id
 * @property int $place of the row in the sample, from 1
 * @property bool $by_rule
 * @property string $key as CSV
 * @property 'right'|'wrong'|'unclear' $verdict
 * @property string $remark
 * @property int $user_id
 * @property Carbon $created_at
 * @property-read User $user
 */
final class EyeVerdict extends Model
{
    use EntersTrail;

    public const UPDATED_AT = null;

    public const VERDICTS = ['right', 'wrong', 'unclear'];

    protected $guarded = [];

    protected $casts = ['by_rule' => 'boolean'];

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
