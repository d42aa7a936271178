<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A filter of findings that was given a name, for everybody who works on the dataset.
 *
 * @property int $id
 * @property int $dataset_id
 * @property string $name
 * @property array<string, mixed> $filter
 * @property-read User $user
 * @property-read Dataset $dataset
 */
final class KeptFilter extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = ['filter' => 'array'];

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }

    /** @return BelongsTo<Dataset, $this> */
    public function dataset(): BelongsTo
    {
        return $this->belongsTo(Dataset::class);
    }
}
