<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * What people of a migration are told. Never with a value of a cell: it leaves the house.
 *
 * @property int $id
 * @property NoticeKind $kind
 * @property int $dataset_id
 * @property int|null $tally_id
 * @property string $said
 * @property string $link to the station that shows more
 * @property \Illuminate\Support\Carbon $created_at
 * @property-read Dataset $dataset
 */
final class Notice extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = ['kind' => NoticeKind::class];

    /** @return BelongsTo<Dataset, $this> */
    public function dataset(): BelongsTo
    {
        return $this->belongsTo(Dataset::class);
    }
}
