<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * What has to be done in the target because of defects of a tally. Entered once: later tallies say of each line whether it was done.
 *
 * @property int $id
 * @property int $dataset_id
 * @property int $tally_id
 * @property int $number
 * @property int $lines
 * @property list<int> $rulings acts of ruling whose findings they are
 * @property int $user_id
 * @property Carbon $created_at
 * @property-read Dataset $dataset
 * @property-read Tally $tally
 * @property-read User $user
 */
final class CorrectionSet extends Model
{
    use EntersTrail;

    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = ['rulings' => 'array'];

    /** Whether it sets keys that bridges join: no act of ruling has them as its findings. */
    public function isOfKeys(): bool
    {
        return $this->rulings === [];
    }

    /** @return BelongsTo<Dataset, $this> */
    public function dataset(): BelongsTo
    {
        return $this->belongsTo(Dataset::class);
    }

    /** @return BelongsTo<Tally, $this> */
    public function tally(): BelongsTo
    {
        return $this->belongsTo(Tally::class);
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
