<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Totals\ControlTotal;

/**
 * What somebody outside said that a total comes to, of a group or of all.
 *
 * @property int $id
 * @property string $total what the total is, as canonical JSON
 * @property list<string> $labels of the group; [] for all
 * @property string|null $figure an exact decimal; null where one that was published is taken back
 * @property string $publisher who published it
 * @property Carbon $created_at
 * @property User $user who entered it here
 */
final class PublishedFigure extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = ['labels' => 'array'];

    /** @return Builder<self> of a total of a dataset, whatever its tally, the newest first */
    public static function of(int $datasetId, ControlTotal $total): Builder
    {
        return self::query()
            ->where(['dataset_id' => $datasetId, 'total' => CanonicalJson::of($total->toArray())])
            ->orderByDesc('id');
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
