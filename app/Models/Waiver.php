<?php

declare(strict_types=1);

namespace App\Models;

use Brick\Math\BigRational;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;
use NineTally\Core\Limits\HeldLimit;
use NineTally\Core\Limits\LimitState;

/**
 * That the data owner takes a figure as it is, though its limit fails: until a day, and for no worse a figure. The newest of a limit
 * stands.
 *
 * @property int $id
 * @property int $dataset_id
 * @property int $tally_id on which it was given
 * @property string $limit_id
 * @property string $worst of the limit, when it was waived
 * @property string|null $value exact; null where there was no figure
 * @property string $reason
 * @property string|null $ticket
 * @property Carbon $ends_on the last day on which it counts
 * @property bool $is_lifted whether this takes one back
 * @property int $user_id
 * @property Carbon $created_at
 * @property-read User $user
 */
final class Waiver extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = ['ends_on' => 'immutable_date', 'is_lifted' => 'boolean'];

    /** Whether it lets the figure pass on a day. */
    public function covers(HeldLimit $held, \DateTimeInterface $day): bool
    {
        if ($this->is_lifted || $this->worst !== $held->worst || $day->format('Y-m-d') > $this->ends_on->format('Y-m-d')) {
            return false;
        }

        return $this->value === null
            ? $held->state === LimitState::NoFigure
            : $held->measured->isWithin(BigRational::of($this->value), $held->limit->figure->isAtLeast()) === true;
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
