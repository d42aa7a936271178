<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\BelongsToMany;
use Illuminate\Support\Carbon;

/**
 * What somebody says about a finding, a pattern or a row class. Comments are added, never changed.
 *
 * @property int $id
 * @property int $dataset_id
 * @property int $tally_id
 * @property string $subject what it is about, known again in later tallies: an identity, or what makes a pattern
 * @property array{kind: string, target: string} $place what it is about in its own tally
 * @property string $text
 * @property Carbon $created_at
 * @property-read User $user
 * @property-read Tally $tally
 * @property-read \Illuminate\Database\Eloquent\Collection<int, User> $mentioned
 */
final class Comment extends Model
{
    use EntersTrail;

    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = ['place' => 'array'];

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

    /** @return BelongsToMany<User, $this> */
    public function mentioned(): BelongsToMany
    {
        return $this->belongsToMany(User::class, 'comment_mentions');
    }
}
