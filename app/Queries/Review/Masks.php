<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\DatabaseRow;
use App\Adapters\Deliveries\MatchedTable;
use App\Adapters\Deliveries\PreparationInputs;
use App\Models\Dataset;
use App\Models\PlanDraft;
use App\Models\Tally;
use App\Models\Unmasking;
use App\Models\User;
use App\Policies\Act;
use App\Problems\ValuesAreMasked;
use Illuminate\Database\Connection;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\MaskedPlan;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Preparation\Preparation;
use NineTally\Core\Preparation\SensitiveColumns;
use NineTally\Core\Row\Side;

/**
 * Sensitive values are masked for everybody, until somebody whose role may see them asks for them, which is on record. A column is
 * sensitive if the tally's plan says so, or the newest, or the draft: what is flagged today is masked in the tallies of yesterday.
 */
final readonly class Masks
{
    /** @param string $secret that nobody outside knows, so that no pseudonym can be guessed by trying values */
    public function __construct(private Connection $database, #[\SensitiveParameter] private string $secret) {}

    /** For what is shown of a tally. */
    public function forPerson(User $person, Tally $tally): Mask
    {
        return $this->over($tally->dataset_id, $tally, $person);
    }

    /** For what leaves the house: nobody knows who will read it. */
    public function ofTally(Tally $tally): Mask
    {
        return $this->over($tally->dataset_id, $tally);
    }

    /** For what is computed from values and is shown to nobody yet. */
    public function none(): Mask
    {
        return Mask::over([], [], null, $this->secret);
    }

    public function ofDataset(Dataset $dataset, ?User $person = null): Mask
    {
        return $this->over($dataset->id, $dataset->latestTally(), $person);
    }

    /** For what is shown of a side on its way from the delivery through the steps of the draft. */
    public function ofSide(Dataset $dataset, Side $side, ?User $person): SideMask
    {
        return $this->ofSteps($dataset, $side, $dataset->draftNow(), null, $person);
    }

    /** The same with steps that are only tried. */
    public function through(Dataset $dataset, Side $side, Preparation $tried, ?User $person): SideMask
    {
        return $this->ofSteps($dataset, $side, $dataset->draftNow(), $tried, $person);
    }

    /** @param Preparation|null $tried null: the steps of the draft */
    private function ofSteps(Dataset $dataset, Side $side, ?PlanDraft $draft, ?Preparation $tried, ?User $person): SideMask
    {
        $drafted = static fn(Side $of): Preparation => $draft?->rules($of)->preparation ?? new Preparation;
        $flagged = $this->flagged($dataset->id, null, $person);
        if (array_filter($flagged) === [] && ($tried ?? $drafted($side))->references() === []) {
            return new SideMask([]);
        }
        $other = $side->other();
        $ofOther = $this->behind($dataset, $other, $drafted($other), $flagged, $person)->anywhere();
        /** @var list<array{source: string, target: string}> $pairs */
        $pairs = [...$draft->document['key'] ?? [], ...$draft->document['columnPairs'] ?? []];
        foreach ($pairs as $pair) {
            if (in_array($pair[$other->value], $ofOther, true)) {
                $flagged[$side->value][] = $pair[$side->value];
            }
        }
        $ofDraft = $this->behind($dataset, $side, $drafted($side), $flagged, $person);
        if ($tried === null) {
            return $ofDraft;
        }
        // A column may be flagged under the name that the draft gives it: where other steps are tried it is the same column.
        $flagged[$side->value] = array_values(array_unique([...$flagged[$side->value], ...$ofDraft->delivered()]));

        return $this->behind($dataset, $side, $tried, $flagged, $person);
    }

    /** @param array{source: list<string>, target: list<string>} $flagged */
    private function behind(Dataset $dataset, Side $side, Preparation $preparation, array $flagged, ?User $person): SideMask
    {
        return new SideMask(
            SensitiveColumns::through(
                $preparation,
                $dataset->latestDelivery($side)?->namedColumns()->names ?? $flagged[$side->value],
                $flagged[$side->value],
                fn(string $reference): array => $this->ofReference($dataset, $reference, $person),
            ),
        );
    }

    /** @return list<string> */
    private function ofReference(Dataset $dataset, string $reference, ?User $person, Preparation $preparation = new Preparation): array
    {
        $delivery = PreparationInputs::deliveryOf($dataset, $reference);

        return $delivery === null
            ? (new MatchedColumns($this))->hidden(MatchedTable::datasetOf($dataset, $reference), $person)
            : $this->behind(
                $delivery->dataset,
                $delivery->side,
                $preparation,
                $this->flagged($delivery->dataset_id, null, $person),
                $person,
            )->anywhere();
    }

    /**
     * A plan as somebody is shown it, or as it leaves the house.
     *
     * @param  array<string, mixed>  $document
     * @param  User|null  $person  null for nobody in particular
     * @return array<string, mixed>
     */
    public function plan(Dataset $dataset, array $document, ?User $person): array
    {
        $plan = PlanDraft::planOf(PlanDraft::ofSides($document));
        $draft = $dataset->draftNow();
        $hidden = fn(Side $side): array => array_values(array_unique([
            ...$this->ofSteps($dataset, $side, $draft, null, $person)->anywhere(),
            ...$this->ofSteps($dataset, $side, $draft, $plan->side($side)->preparation, $person)->anywhere(),
        ]));
        $references = [];
        foreach (array_keys($plan->references) as $name) {
            $references[$name] = $this->ofReference($dataset, $name, $person, $plan->reference($name)->preparation);
        }

        return MaskedPlan::of(
            $document,
            ['source' => $hidden(Side::Source), 'target' => $hidden(Side::Target), 'references' => $references],
            $this->maskOfLiterals($dataset->id, $person),
        );
    }

    /**
     * What somebody made of a plan in which values were masked, with the values in their places again.
     *
     * @param  array<array-key, mixed>  $document  of a plan
     * @param  \Closure(array<array-key, mixed>): array<string, mixed>  $normalized
     * @return array<string, mixed> normalized
     *
     * @throws ValuesAreMasked when a value would stand where it is no longer masked
     */
    public function opened(Dataset $dataset, array $document, \Closure $normalized, User $person): array
    {
        $seals = SealedLiterals::in($document);
        if ($seals === []) {
            return $normalized($document);
        }
        $opened = $normalized((new SealedLiterals($this->secret, $dataset->id))->opened($document));
        $masked = SealedLiterals::in($this->plan($dataset, $opened, $person));
        foreach ($seals as $seal => $count) {
            if (($masked[$seal] ?? 0) < $count) {
                throw new ValuesAreMasked(
                    'A masked value was put where it would be seen, or is of another dataset. Show the sensitive values first, or type '.
                        'the value that is meant.',
                );
            }
        }

        return $opened;
    }

    /** @return \Closure(string): string of what goes back to whom it came from a seal, of what leaves the house a short name */
    private function maskOfLiterals(int $datasetId, ?User $person): \Closure
    {
        return $person === null
            ? fn(string $value): string => '(masked '.
                substr(hash_hmac('sha256', $value, "literals of {$datasetId} {$this->secret}"), 0, 8).
                ')'
            : (new SealedLiterals($this->secret, $datasetId))->sealed(...);
    }

    /** The plan of a tally as it leaves the house, or as somebody is shown it. */
    public function planOf(Tally $tally, ?User $person = null): Plan
    {
        $plan = $tally->planVersion->plan();
        $masked = $this->plan($tally->dataset, $plan->toArray(), $person);

        return $masked === $plan->toArray() ? $plan : Plan::fromJson(CanonicalJson::of($masked));
    }

    /** Whether what holds values as they are, and is of no use without them, is kept from somebody now. */
    public function keepsDeliveredFrom(User $person, Dataset $dataset): bool
    {
        return $this->ofDataset($dataset, $person)->hidesAnything();
    }

    /**
     * @return array{masked: list<string>, mayShow: bool, shownUntil: string|null}|null what is kept from a person now; null if no column is
     *     sensitive
     */
    public function state(User $person, Dataset $dataset): ?array
    {
        $columns = array_values(array_unique([
            ...$this->ofSide($dataset, Side::Source, null)->delivered(),
            ...$this->ofDataset($dataset)->columns(),
        ]));
        if ($columns === []) {
            return null;
        }
        $asked = Unmasking::query()->where(['dataset_id' => $dataset->id, 'user_id' => $person->id])->orderByDesc('id')->first();
        $until = $asked?->until;
        $isShown = $person->isHere() && $until !== null && $until->isFuture();

        return [
            'masked' => $isShown ? [] : $columns,
            'mayShow' => $person->can('act', [$dataset->migration, Act::Unmask]),
            'shownUntil' => $isShown ? $until->toIso8601ZuluString() : null,
        ];
    }

    /**
     * @param  Tally|null  $tally  of what is shown, with the steps that its rows went through
     * @param  User|null  $person  to whom the values may be shown; null for nobody
     */
    private function over(int $datasetId, ?Tally $tally, ?User $person = null): Mask
    {
        $columns = $this->flagged($datasetId, $tally?->plan_version_id, $person);
        // What is looked up may be sensitive where it comes from, though nothing is here.
        $isMasked = array_filter($columns) !== [] || str_contains($tally->planVersion->document ?? '', '"reference"');
        $plan = $isMasked ? $tally?->planVersion->plan() : null;
        if ($tally !== null && $plan !== null) {
            foreach (['source' => $tally->sourceDelivery, 'target' => $tally->targetDelivery] as $side => $delivery) {
                $names = SensitiveColumns::through(
                    $plan->side(Side::from($side))->preparation,
                    $delivery->namedColumns()->names,
                    $columns[$side],
                    fn(string $reference): array => $this->ofReference($tally->dataset, $reference, $person),
                );
                $columns[$side] = array_values(array_unique([...$columns[$side], ...array_merge(...array_slice($names, -1))]));
            }
        }
        // Known by the same pseudonym in all tallies of a dataset, and in no other.
        return Mask::over(
            $columns['source'],
            $columns['target'],
            $plan,
            hash_hmac('sha256', "mask of dataset {$datasetId}", $this->secret),
        );
    }

    /** @return array{source: list<string>, target: list<string>} names that are flagged, unless their values are shown to the person now */
    private function flagged(int $datasetId, ?int $planVersionId, ?User $person): array
    {
        // Versions of plans that were made before any column could be flagged flag their pairs.
        $flagged = DatabaseRow::all(
            $this->database,
            <<<'SQL'
            WITH plans AS (
                SELECT document::json FROM plan_versions WHERE id = :plan
                UNION ALL SELECT document::json FROM plan_drafts WHERE dataset_id = :dataset
                UNION ALL (SELECT document::json FROM plan_versions WHERE dataset_id = :dataset ORDER BY number DESC LIMIT 1)
            ), flagged AS (
                SELECT side, name FROM plans, json_each(document -> 'sensitive') AS sides (side, names),
                    json_array_elements_text(names) AS name
                UNION
                SELECT side, pair ->> side FROM plans, json_array_elements(document -> 'columnPairs') AS pair, unnest(ARRAY['source',
                    'target']) AS side WHERE (pair ->> 'sensitive')::boolean
            )
            SELECT side, name FROM flagged
            WHERE NOT coalesce((SELECT until > :now::timestamptz FROM unmaskings WHERE dataset_id = :dataset AND user_id = :person
                ORDER BY id DESC LIMIT 1), false)
            ORDER BY side, name
            SQL
            ,
            [
                'plan' => $planVersionId,
                'dataset' => $datasetId,
                'person' => $person?->isHere() === true ? $person->id : null,
                'now' => now(),
            ],
        );
        $columns = ['source' => [], 'target' => []];
        foreach ($flagged as $column) {
            $columns[$column->text('side') === 'source' ? 'source' : 'target'][] = $column->text('name');
        }

        return $columns;
    }
}
