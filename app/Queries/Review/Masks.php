<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\DatabaseRow;
use App\Models\Dataset;
use App\Models\Tally;
use App\Models\Unmasking;
use App\Models\User;
use App\Policies\Act;
use Illuminate\Database\Connection;
use NineTally\Core\Plan\Plan;

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
        return $this->over($tally->dataset_id, $tally->plan_version_id, static fn(): Plan => $tally->planVersion->plan(), $person);
    }

    /** For what leaves the house: nobody knows who will read it. */
    public function ofTally(Tally $tally): Mask
    {
        return $this->over($tally->dataset_id, $tally->plan_version_id, static fn(): Plan => $tally->planVersion->plan());
    }

    /** For what is computed from values and is shown to nobody yet. */
    public function none(): Mask
    {
        return Mask::over([], [], null, $this->secret);
    }

    public function ofDataset(Dataset $dataset, ?User $person = null): Mask
    {
        return $this->over($dataset->id, null, static fn(): ?Plan => $dataset->latestTally()?->planVersion->plan(), $person);
    }

    /** Whether rows as they were delivered are kept from somebody: there nothing is masked. */
    public function keepsDeliveredFrom(User $person, Dataset $dataset): bool
    {
        $role = $person->roleIn($dataset->migration);

        return $role !== null && ! Act::Unmask->isFor($role) && $this->ofDataset($dataset)->hidesAnything();
    }

    /**
     * @return array{masked: list<string>, mayShow: bool, shownUntil: string|null}|null what is kept from a person now; null if no column is
     *     sensitive
     */
    public function state(User $person, Tally $tally): ?array
    {
        $columns = $this->ofTally($tally)->columns();
        if ($columns === []) {
            return null;
        }
        $until = Unmasking::query()->where('dataset_id', $tally->dataset_id)->where('user_id', $person->id)->orderByDesc('id')->first()
            ?->until;
        $isShown = $until !== null && $until->isFuture();

        return [
            'masked' => $isShown ? [] : $columns,
            'mayShow' => $person->can('unmask', $tally->migration),
            'shownUntil' => $isShown ? $until->toIso8601ZuluString() : null,
        ];
    }

    /**
     * @param  \Closure(): (Plan|null)  $plan  of what is shown; asked for only where something is hidden
     * @param  User|null  $person  to whom the values may be shown; null for nobody
     */
    private function over(int $datasetId, ?int $planVersionId, \Closure $plan, ?User $person = null): Mask
    {
        // Versions of plans that were made before any column could be flagged flag their pairs.
        $flagged = DatabaseRow::all($this->database, <<<'SQL'
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
            SQL, ['plan' => $planVersionId, 'dataset' => $datasetId, 'person' => $person?->id, 'now' => now()]);
        $columns = ['source' => [], 'target' => []];
        foreach ($flagged as $column) {
            $columns[$column->text('side') === 'source' ? 'source' : 'target'][] = $column->text('name');
        }
        // Known by the same pseudonym in all tallies of a dataset, and in no other.
        return Mask::over(
            $columns['source'],
            $columns['target'],
            $flagged === [] ? null : $plan(),
            hash_hmac('sha256', "mask of dataset {$datasetId}", $this->secret),
        );
    }
}
