<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * What somebody says in the report in their own words.
 *
 * @property int $id
 * @property int $tally_id
 * @property string $place opening, on the first page; or closing
 * @property string $text as it was typed; '' takes it away
 * @property Carbon $created_at
 * @property-read User $user
 */
final class ReportText extends Model
{
    use EntersTrail;

    public const UPDATED_AT = null;

    public const PLACES = ['opening', 'closing'];

    protected $guarded = [];

    /** @return array<string, self> the newest of each place, where it says something */
    public static function standing(int $tallyId): array
    {
        $texts = [];
        foreach (self::query()->where('tally_id', $tallyId)->with('user')->orderBy('id')->get() as $text) {
            $texts[$text->place] = $text;
        }

        return array_filter($texts, static fn(self $text): bool => $text->text !== '');
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
