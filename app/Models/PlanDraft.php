<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Casts\Attribute;
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
 * @phpstan-type DraftDocument array{formatVersion: int, key: list<array{source: string, target: string, forgives?: list<string>}>,
 *     columnPairs: list<array<string, mixed>>, leftOut: array{source: list<string>, target: list<string>}, sides?: array<string, mixed>,
 *     bridges?: list<array<string, mixed>>, refusedBridges?: list<array<string, mixed>>,
 *     keptRows?: list<ChosenDocument>, equivalents?: list<array<string, mixed>>,
 *     demands?: array<string, array<string, mixed>>,
 *     limits?: list<array<string, mixed>>}
 *
 * @property int $dataset_id
 * @property DraftDocument $document  a plan's, but that the key may be empty
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

    /** @var array{string, self}|null the one that was looked at last, and which writing of its row it is */
    private static ?array $last = null;

    /** @var array{mixed, DraftDocument}|null the document as it is kept, and as it was read */
    private ?array $decoded = null;

    /** @var array{mixed, Plan}|null the document that was read last, as it is kept, and what it says of the sides */
    private ?array $read = null;

    /** The draft of a dataset, to be looked at and not to be changed. */
    public static function asItStands(int $dataset): ?self
    {
        // Each writing of a row has a place and a transaction of its own.
        $writing = self::query()
            ->where('dataset_id', $dataset)
            ->toBase()
            ->selectRaw("ctid::text || ' ' || xmin::text AS writing")
            ->value('writing');
        if (! is_string($writing)) {
            return null;
        }
        $writing = "{$dataset} {$writing}";
        if (self::$last === null || self::$last[0] !== $writing) {
            $draft = self::query()->find($dataset);
            self::$last = $draft === null ? null : [$writing, $draft];
        }

        return self::$last[1] ?? null;
    }

    /** What it says of one side. */
    public function rules(Side $side): SideRules
    {
        $kept = $this->attributes['document'] ?? null;
        if ($this->read === null || $this->read[0] !== $kept) {
            $this->read = [$kept, self::planOf(self::ofSides($this->document))];
        }

        return $this->read[1]->side($side);
    }

    /**
     * What a draft says of its sides and references. The key may still be empty, and says nothing of them; neither do bridges, of which
     * there may be very many.
     *
     * @param  array<string, mixed>  $document
     * @return array<string, mixed>
     */
    public static function ofSides(array $document): array
    {
        return ['key' => [], 'columnPairs' => []] +
            (($document['formatVersion'] ?? null) === Plan::FORMAT_VERSION
                ? array_intersect_key($document, self::OF_SIDES)
                : $document);
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

    /**
     * Read once: it may be megabytes, and is asked for often.
     *
     * @return Attribute<DraftDocument, array<string, mixed>>
     */
    protected function document(): Attribute
    {
        return Attribute::make(
            get: function (mixed $kept): array {
                if ($this->decoded === null || $this->decoded[0] !== $kept) {
                    /** @var DraftDocument $document */
                    $document = json_decode(is_string($kept) ? $kept : '', true, 64, JSON_THROW_ON_ERROR);
                    $this->decoded = [$kept, $document];
                }

                return $this->decoded[1];
            },
            set: static fn(array $document): string => json_encode($document, JSON_THROW_ON_ERROR),
        );
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
