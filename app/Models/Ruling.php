<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * An act of ruling. Acts are only added: the newest that covers a finding stands, and undoing one is an act too.
 *
 * @property int $id
 * @property int $tally_id
 * @property RulingScope $scope
 * @property int|null $sequence
 * @property int|null $pattern_number
 * @property string|null $row_class
 * @property int|null $undoes_id
 * @property Decision|null $decision null when it undoes
 * @property string $reason
 * @property int $findings how many it covered
 * @property Carbon $created_at
 * @property-read User $user
 * @property-read Tally $tally
 */
final class Ruling extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = ['scope' => RulingScope::class, 'decision' => Decision::class, 'findings' => 'integer'];

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
