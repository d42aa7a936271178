<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;
use NineTally\Core\Sampling\ZeroFailure;

/**
 * A sample of rows of which both sides have the same, to be looked at: those that are identical, and those that agree only for a rule.
 *
 * @property int $id
 * @property int $tally_id
 * @property string $seed
 * @property float $confidence
 * @property float $share of wrong rows that is to be ruled out
 * @property array{identical: int, byRule: int} $sizes
 * @property array{identical: int, byRule: int} $populations
 * @property int $user_id
 * @property Carbon $created_at
 * @property-read Tally $tally
 * @property-read User $user
 * @property-read \Illuminate\Database\Eloquent\Collection<int, EyeVerdict> $verdicts
 * @property-read \Illuminate\Database\Eloquent\Collection<int, EyeCheckPerson> $people
 */
final class EyeCheck extends Model
{
    use EntersTrail;

    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = ['confidence' => 'float', 'share' => 'float', 'sizes' => 'array', 'populations' => 'array'];

    public function plan(): ZeroFailure
    {
        return new ZeroFailure($this->confidence, $this->share);
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

    /** @return HasMany<EyeVerdict, $this> in the order in which they were given */
    public function verdicts(): HasMany
    {
        return $this->hasMany(EyeVerdict::class)->orderBy('id');
    }

    /** @return HasMany<EyeCheckPerson, $this> to whom it was given */
    public function people(): HasMany
    {
        return $this->hasMany(EyeCheckPerson::class)->orderBy('id');
    }
}
