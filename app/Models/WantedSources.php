<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * Where the rows of an imported plan are drawn from, as the plan says: waits until they are drawn, or nobody wants them any more.
 *
 * @phpstan-type Wanted array{connection: string, kind: string, query: string, values?: array<string, string>, part: string}
 *
 * @property int $dataset_id
 * @property array{source?: list<Wanted>, target?: list<Wanted>} $drawn by side
 * @property int $user_id who brought the plan
 * @property-read Dataset $dataset
 */
final class WantedSources extends Model
{
    public const CREATED_AT = null;

    public $incrementing = false;

    protected $primaryKey = 'dataset_id';

    protected $guarded = [];

    protected $casts = ['drawn' => 'array'];

    /** @return BelongsTo<Dataset, $this> */
    public function dataset(): BelongsTo
    {
        return $this->belongsTo(Dataset::class);
    }
}
