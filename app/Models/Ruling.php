<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * An act of ruling. Acts are only added: the newest that covers a finding stands, and undoing one is an act too.
 *
 * @property int $id
 * @property int $dataset_id
 * @property int $tally_id
 * @property RulingScope $scope
 * @property int|null $sequence
 * @property int|null $pattern_number
 * @property string|null $row_class
 * @property int|null $undoes_id
 * @property Decision|null $decision null when it undoes
 * @property string $reason
 * @property int $findings how many it covered
 * @property string|null $ticket
 * @property int|null $asked_id
 * @property array<string, mixed>|null $filter of a selection or filter: what it said
 * @property int|null $holds_up_to of a pattern, in tallies to come: while it has no more cells than this
 * @property list<array{source: string, target: string}>|null $holds_for of a pattern, in tallies to come: these value pairs
 * @property Carbon $created_at
 * @property-read User $user
 * @property-read User|null $asked
 * @property-read Tally $tally
 */
final class Ruling extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = [
        'scope' => RulingScope::class,
        'decision' => Decision::class,
        'findings' => 'integer',
        'filter' => 'array',
        'holds_up_to' => 'integer',
        'holds_for' => 'array',
    ];

    /** @return int id of the newest act on a tally; 0 for none */
    public static function newestOn(Tally $tally): int
    {
        return self::query()->where('tally_id', $tally->id)->orderByDesc('id')->first()->id ?? 0;
    }

    /** @return Builder<self> acts that ruled findings of a dataset a defect, and were not undone */
    public static function defectsOf(int $datasetId): Builder
    {
        return self::query()
            ->where('dataset_id', $datasetId)
            ->where('decision', Decision::Defect->value)
            ->whereNotExists(
                static fn(\Illuminate\Database\Query\Builder $undo) => $undo
                    ->selectRaw('1')
                    ->from('rulings AS u')
                    ->whereColumn('u.undoes_id', 'rulings.id'),
            );
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }

    /** @return BelongsTo<User, $this> */
    public function asked(): BelongsTo
    {
        return $this->belongsTo(User::class, 'asked_id');
    }

    /** @return BelongsTo<Tally, $this> */
    public function tally(): BelongsTo
    {
        return $this->belongsTo(Tally::class);
    }
}
