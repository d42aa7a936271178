<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\DatabaseRow;
use App\Models\Dataset;
use App\Models\Tally;
use App\Models\Unmasking;
use App\Models\User;
use Illuminate\Database\Connection;

/**
 * Sensitive values are masked for everybody, until somebody whose role may see them asks for them, which is on record. A column is
 * sensitive if the tally's plan says so, or the newest, or the draft: what is flagged today is masked in the tallies of yesterday.
 */
final readonly class Masks
{
    public function __construct(private Connection $database) {}

    /** For what is shown of a tally. */
    public function forPerson(User $person, Tally $tally): Mask
    {
        return $this->over($tally->dataset_id, $tally->plan_version_id, $person);
    }

    /** For what leaves the house: nobody knows who will read it. */
    public function ofTally(Tally $tally): Mask
    {
        return $this->over($tally->dataset_id, $tally->plan_version_id);
    }

    public function ofDataset(Dataset $dataset, ?User $person = null): Mask
    {
        return $this->over($dataset->id, null, $person);
    }

    /** @return array{masked: list<string>, mayShow: bool, shownUntil: string|null}|null what is kept from a person now; null if no column is sensitive */
    public function state(User $person, Tally $tally): ?array
    {
        $columns = $this->ofTally($tally)->columns();
        if ($columns === []) {
            return null;
        }
        $until = Unmasking::query()->where('dataset_id', $tally->dataset_id)->where('user_id', $person->id)->orderByDesc('id')->first()?->until;
        $isShown = $until !== null && $until->isFuture();

        return ['masked' => $isShown ? [] : $columns, 'mayShow' => $person->can('unmask', $tally->migration), 'shownUntil' => $isShown ? $until->toIso8601ZuluString() : null];
    }

    /** @param User|null $person to whom the values may be shown; null for nobody */
    private function over(int $datasetId, ?int $planVersionId, ?User $person = null): Mask
    {
        $pairs = $this->database->select(<<<'SQL'
            SELECT DISTINCT pair ->> 'source' AS source, pair ->> 'target' AS target FROM (
                SELECT document::json FROM plan_versions WHERE id = :plan
                UNION ALL SELECT document::json FROM plan_drafts WHERE dataset_id = :dataset
                UNION ALL (SELECT document::json FROM plan_versions WHERE dataset_id = :dataset ORDER BY number DESC LIMIT 1)
            ) plans, json_array_elements(document -> 'columnPairs') AS pair
            WHERE (pair ->> 'sensitive')::boolean
                AND NOT coalesce((SELECT until > :now::timestamptz FROM unmaskings WHERE dataset_id = :dataset AND user_id = :person ORDER BY id DESC LIMIT 1), false)
            ORDER BY source, target
            SQL, ['plan' => $planVersionId, 'dataset' => $datasetId, 'person' => $person?->id, 'now' => now()]);
        [$source, $target] = [[], []];
        foreach ($pairs as $fields) {
            /** @var \stdClass $fields */
            $pair = DatabaseRow::of($fields);
            $source[] = $pair->text('source');
            $target[] = $pair->text('target');
        }

        return Mask::over(array_values(array_unique($source)), array_values(array_unique($target)));
    }
}
