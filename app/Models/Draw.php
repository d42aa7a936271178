<?php

declare(strict_types=1);

namespace App\Models;

use Carbon\CarbonImmutable;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * Both sides drawn from where they live, and tallied: what became of it, in words.
 *
 * @property int $id
 * @property int $dataset_id
 * @property CarbonImmutable|null $due_at by the schedule; null: somebody asked for it
 * @property DrawState $state
 * @property array<'source'|'target', list<array{receipt: string, label: string}>> $receipts by side, in the order of the parts
 * @property int|null $run_id
 * @property list<array{at: string, said: string}> $log
 * @property int $user_id
 * @property CarbonImmutable $created_at
 * @property CarbonImmutable $updated_at
 * @property-read Dataset $dataset
 * @property-read User $user
 * @property-read Run|null $run
 */
final class Draw extends Model
{
    protected $guarded = [];

    protected $attributes = ['receipts' => '{}', 'log' => '[]', 'run_id' => null, 'due_at' => null];

    protected $casts = [
        'state' => DrawState::class,
        'receipts' => 'array',
        'log' => 'array',
        'due_at' => 'immutable_datetime',
        'created_at' => 'immutable_datetime',
        'updated_at' => 'immutable_datetime',
    ];

    /** Goes on to a state, and says why. */
    public function goOn(DrawState $state, string $said): void
    {
        $this->update(['state' => $state, 'log' => [...$this->log, ['at' => now()->toIso8601ZuluString(), 'said' => $said]]]);
    }

    /** @return BelongsTo<Dataset, $this> */
    public function dataset(): BelongsTo
    {
        return $this->belongsTo(Dataset::class);
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }

    /** @return BelongsTo<Run, $this> */
    public function run(): BelongsTo
    {
        return $this->belongsTo(Run::class);
    }
}
