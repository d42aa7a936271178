<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Database\Eloquent\Relations\HasOne;
use Illuminate\Database\Eloquent\Relations\HasOneThrough;
use Illuminate\Support\Carbon;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Comparison\RowReason;
use NineTally\Core\Row\Side;
use NineTally\Core\Wording\Sentences;

/**
 * One run of a plan on two deliveries. Entered once, complete, when its sums hold; nothing of it ever changes.
 *
 * @property int $id
 * @property int $dataset_id
 * @property int $plan_version_id
 * @property int $run_id
 * @property int $target_delivery_id
 * @property int $source_delivery_id
 * @property int $number
 * @property array{rows: array{source: array<string, int>, target: array<string, int>}, cells: array<string, int>,
 *     values?: array{values: int, right: int, differing: int, lost: int, added: int, blank_on_both: int, agreement: string},
 *     columns?: list<array{pair?: string, source: string, target: string, altered?: array{source: int, target: int}, values?: array{
 *     values: int, right: int, differing: int, lost: int, added: int, blank_on_both: int, agreement: string}, ...}>,
 *     figures: array{rowsArrived: string, cellsAgreeing: string, cellsAgreeingOverall: string}, warnings: list<array{kind: string,
 *     facts: array<string, string|int>}|string>, keyForgiven?: list<array{source: string, target: string, cause: string, cells: int,
 *     examples?: list<array{source: string, target: string}>}>,
 *     forgiven?: list<array{source: string, target: string, cause: string, facts?: array<string,
 *     string|int>, sentence?: string, cells: int, examples: list<array{source: string, target: string}>}>,
 *     slices?: list<array{class: string, reason?: string, side?: string, part?: int, bridged?: string, rows: int}>,
 *     repeats?: array{source: array{set_aside: int, not_kept: int, kept: int}, target: array{set_aside: int, not_kept: int, kept: int}},
 *     steps?: array{source: list<array<string, mixed>>, target: list<array<string, mixed>>}, parameters?: array<string, string>,
 *     agreedByRule?: int, agreedWithoutOneKey?: array{identical: int, byRule: int}, engine: array<string, string|int>,
 *     madeOf: array{planVersion: int, sourceDelivery: int, targetDelivery: int,
 *     keyColumns: list<string>, startedBy: string, references?: list<array{name: string, delivery: int}>,
 *     matched?: list<array{name: string, tally: int}>, records?: list<array{name: string, source: int|null, target: int|null}>}} $summary
 * @property Carbon $started_at
 * @property Carbon $finished_at
 * @property-read Dataset $dataset
 * @property-read Migration $migration
 * @property-read PlanVersion $planVersion
 * @property-read Run $run
 * @property-read Delivery $sourceDelivery
 * @property-read Delivery $targetDelivery
 * @property-read User $user
 * @property-read CarryOver|null $carryOver
 * @property-read TallyName|null $name
 * @property-read PurgedTally|null $purged
 */
final class Tally extends Model
{
    use MayBePurged;

    public $timestamps = false;

    protected $guarded = [];

    protected $casts = ['summary' => 'array', 'started_at' => 'immutable_datetime', 'finished_at' => 'immutable_datetime'];

    /** @return BelongsTo<Dataset, $this> */
    public function dataset(): BelongsTo
    {
        return $this->belongsTo(Dataset::class);
    }

    /** @return HasOneThrough<Migration, Dataset, $this> */
    public function migration(): HasOneThrough
    {
        return $this->hasOneThrough(Migration::class, Dataset::class, 'id', 'id', 'dataset_id', 'migration_id');
    }

    /** @return BelongsTo<PlanVersion, $this> */
    public function planVersion(): BelongsTo
    {
        return $this->belongsTo(PlanVersion::class);
    }

    /** @return BelongsTo<Run, $this> */
    public function run(): BelongsTo
    {
        return $this->belongsTo(Run::class);
    }

    /** @return BelongsTo<Delivery, $this> */
    public function sourceDelivery(): BelongsTo
    {
        return $this->belongsTo(Delivery::class);
    }

    /** @return BelongsTo<Delivery, $this> */
    public function targetDelivery(): BelongsTo
    {
        return $this->belongsTo(Delivery::class);
    }

    /** @return BelongsTo<User, $this> */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }

    /** @return HasMany<TallyTotal, $this> */
    public function totals(): HasMany
    {
        return $this->hasMany(TallyTotal::class)->orderBy('number');
    }

    /** @return HasMany<Pattern, $this> */
    public function patterns(): HasMany
    {
        return $this->hasMany(Pattern::class);
    }

    /** @return HasMany<Ruling, $this> */
    public function rulings(): HasMany
    {
        return $this->hasMany(Ruling::class);
    }

    /** @return HasOne<CarryOver, $this> what became of the rulings of the tally before */
    public function carryOver(): HasOne
    {
        return $this->hasOne(CarryOver::class);
    }

    /** @return HasOne<TallyName, $this> what it is called now */
    public function name(): HasOne
    {
        return $this->hasOne(TallyName::class)->latestOfMany();
    }

    /** @return HasMany<RecordCheck, $this> */
    public function recordChecks(): HasMany
    {
        return $this->hasMany(RecordCheck::class)->orderBy('number');
    }

    /** @return HasMany<EyeCheck, $this> */
    public function eyeChecks(): HasMany
    {
        return $this->hasMany(EyeCheck::class)->orderBy('id');
    }

    /** @return HasMany<Signature, $this> in the order in which they were given */
    public function signatures(): HasMany
    {
        return $this->hasMany(Signature::class)->orderBy('id');
    }

    /** @return HasMany<StandingCount, $this> */
    public function standingCounts(): HasMany
    {
        return $this->hasMany(StandingCount::class);
    }

    /**
     * @return array<string, list<array{filter: array<string, string|int>, words: string, rows: int}>> by row class: what a filter says of
     *     some of its rows; none where the tally is older than they are
     */
    public function slices(): array
    {
        $slices = [];
        foreach ($this->summary['slices'] ?? [] as $slice) {
            $side = isset($slice['side']) ? Side::from($slice['side']) : null;
            $label = isset($slice['part']) ? $this->nameOfPart($side, $slice['part']) : '';
            $slices[$slice['class']][] = [
                'filter' => array_diff_key($slice, ['rows' => true]),
                'words' => (new Sentences)->slice(
                    isset($slice['reason']) ? RowReason::from($slice['reason']) : null,
                    $side,
                    $slice['part'] ?? null,
                    $label,
                    isset($slice['bridged']),
                ),
                'rows' => $slice['rows'],
            ];
        }

        return $slices;
    }

    /**
     * @return list<array{pair: string, source: string, target: string, altered: array{source: int, target: int}, values: array{values: int,
     *     right: int, differing: int, lost: int, added: int, blank_on_both: int, agreement: string}}> in the order of the plan; none
     *     where the tally is older than they are
     */
    public function figuresByColumn(): array
    {
        $columns = [];
        foreach ($this->summary['columns'] ?? [] as $column) {
            if (isset($column['pair'], $column['values'], $column['altered'])) {
                $columns[] = [
                    'pair' => $column['pair'],
                    'source' => $column['source'],
                    'target' => $column['target'],
                    'altered' => $column['altered'],
                    'values' => $column['values'],
                ];
            }
        }

        return $columns;
    }

    /**
     * @param  array{set_aside: int, not_kept: int, kept: int}  $figures  as the engine names them
     * @return array{setAside: int, notKept: int, kept: int} as the contract does
     */
    public static function repeatFigures(array $figures): array
    {
        return ['setAside' => $figures['set_aside'], 'notKept' => $figures['not_kept'], 'kept' => $figures['kept']];
    }

    /**
     * @param  array{values: int, right: int, differing: int, lost: int, added: int, blank_on_both: int,
     *     agreement: string}  $figures  as the engine names them
     * @return array{values: int, right: int, differing: int, lost: int, added: int, blankOnBoth: int, agreement: string} as the
     *     contract does
     */
    public static function valueFigures(array $figures): array
    {
        ['blank_on_both' => $blankOnBoth, 'agreement' => $agreement] = $figures;
        unset($figures['blank_on_both'], $figures['agreement']);

        return [...$figures, 'blankOnBoth' => $blankOnBoth, 'agreement' => $agreement];
    }

    private function nameOfPart(?Side $side, int $part): string
    {
        $delivery = $side === Side::Source ? $this->sourceDelivery : $this->targetDelivery;

        return $delivery->parts->firstWhere('number', $part)->file_name ?? '';
    }

    /** @return list<string> the lists of what rules let pass, by name, in the order of forgiven() */
    public function forgivenLists(): array
    {
        return [
            ...array_map(
                static fn(array $pattern): string => self::nameOfList(true, $pattern['source'], $pattern['cause'], []),
                $this->summary['keyForgiven'] ?? [],
            ),
            ...array_map(
                static fn(array $pattern): string => self::nameOfList(
                    false,
                    $pattern['source'],
                    $pattern['cause'],
                    $pattern['facts'] ?? [],
                ),
                $this->summary['forgiven'] ?? [],
            ),
        ];
    }

    /** @param array<string, string|int> $facts of the cause */
    public static function nameOfList(bool $inKey, string $source, string $cause, array $facts): string
    {
        // What a tolerance let pass in all is said of the pattern, not of a cell.
        $facts = array_diff_key($facts, ['largest' => true, 'net' => true]);
        ksort($facts);

        return json_encode([$inKey, $source, $cause, $facts], JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE);
    }

    /**
     * @return list<array{inKey: bool, source: string, target: string, cause: string, sentence: string, cells: int,
     *     examples: list<array{source: string, target: string}>}> what rules let pass, in the key first
     */
    public function forgiven(): array
    {
        // What the key let pass has no facts; tallies of an earlier version kept no examples of it, and of pairs the sentence.
        $inKey = array_map(
            static fn(array $pattern): array => $pattern + ['inKey' => true, 'facts' => [], 'examples' => []],
            $this->summary['keyForgiven'] ?? [],
        );

        return array_map(
            static fn(array $pattern): array => [
                'inKey' => isset($pattern['inKey']),
                'source' => $pattern['source'],
                'target' => $pattern['target'],
                'cause' => $pattern['cause'],
                'sentence' => isset($pattern['facts'])
                    ? CauseId::sentenceFor($pattern['cause'], $pattern['facts'])
                    : $pattern['sentence'] ?? $pattern['cause'],
                'cells' => $pattern['cells'],
                'examples' => $pattern['examples'],
            ],
            [...$inKey, ...$this->summary['forgiven'] ?? []],
        );
    }
}
