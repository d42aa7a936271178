<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Repeats\ChosenRow;
use NineTally\Core\Row\Side;

/**
 * The plan while it is being worked on; a tally uses a version of it that never changes.
 *
 * @phpstan-import-type ChosenDocument from ChosenRow
 *
 * @property int $dataset_id
 * @property array{formatVersion: int, key: list<array{source: string, target: string, forgives?: list<string>}>,
 *     columnPairs: list<array<string, mixed>>, leftOut: array{source: list<string>, target: list<string>}, sides?: array<string, mixed>,
 *     bridges?: list<array<string, mixed>>, refusedBridges?: list<array<string, mixed>>,
 *     keptRows?: list<ChosenDocument>, equivalents?: list<array<string, mixed>>,
 *     demands?: array<string, array<string, mixed>>,
 *     limits?: list<array<string, mixed>>} $document  a plan's, but that the key may be empty
 * @property int|null $user_id who saved it; null while it is the first proposal
 * @property int $number of the draft, counted by each time that it was saved
 * @property \Illuminate\Support\Carbon $updated_at
 * @property-read User|null $user
 */
final class PlanDraft extends Model
{
    public const CREATED_AT = null;

    public $incrementing = false;

    /** Parts that say how a side is prepared and read. */
    private const OF_SIDES = ['formatVersion' => true, 'sides' => true, 'references' => true, 'keptRows' => true];

    protected $primaryKey = 'dataset_id';

    protected $guarded = [];

    protected $casts = ['document' => 'array'];

    /** What it says of one side. */
    public function rules(Side $side): SideRules
    {
        // The key may still be empty, and says nothing of sides; neither do bridges, of which there may be very many.
        $document = ($this->document['formatVersion'] ?? null) === Plan::FORMAT_VERSION
            ? array_intersect_key($this->document, self::OF_SIDES)
            : $this->document;

        return self::planOf(['key' => [], 'columnPairs' => []] + $document)->side($side);
    }

    /**
     * A draft as a plan, with a key that nobody has chosen where it has none.
     *
     * @param  array<string, mixed>  $document
     *
     * @throws \NineTally\Core\Plan\UnusablePlan
     */
    public static function planOf(array $document): Plan
    {
        $key = ($document['key'] ?? []) === [] ? ['key' => [['source' => '?', 'target' => '?']]] : [];

        return Plan::fromJson(CanonicalJson::of($key + $document));
    }

    /** @return BelongsTo<User, $this> who saved it last */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }

    /** @return list<string> the key by source names */
    public function keyNames(): array
    {
        return array_column($this->document['key'], 'source');
    }
}
