<?php

declare(strict_types=1);

namespace App\Actions\Match;

use App\Models\Dataset;
use App\Models\PlanDraft;
use App\Models\User;
use App\Problems\DraftChanged;
use App\Queries\Review\Masks;
use Illuminate\Database\Connection;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;

/** Keeps the draft as the person left it. Whether it can be used on the deliveries is checked when it is tallied, and shown before. */
final readonly class SaveDraft
{
    /** Stands in for the key that a draft may still lack, for no plan is without one. */
    private const NO_KEY_YET = [['source' => '?', 'target' => '?']];

    public function __construct(private Connection $database, private Masks $masks) {}

    /**
     * @param  array<array-key, mixed>  $document  a plan's, but that its key may be empty and the format version and the ids of pairs may
     *     be left out
     *
     * @param  int|null  $seen  the number of the draft that the person saw; null overwrites whatever is there
     *
     * @throws \NineTally\Core\Plan\UnusablePlan when it does not follow the schema, with the places
     * @throws DraftChanged when somebody else has saved another since
     */
    public function __invoke(Dataset $dataset, array $document, User $person, ?int $seen = null): PlanDraft
    {
        // What is good enough is said by another address, and stays as it stands.
        $normal = array_diff_key($this->opened($dataset, $document, $person), ['limits' => true]);

        return $this->database->transaction(static function () use ($dataset, $normal, $person, $seen): PlanDraft {
            // Two may save at the same moment: the lock gives them an order, and the second learns of the first.
            Dataset::query()->lockForUpdate()->findOrFail($dataset->id);
            $known = PlanDraft::query()->find($dataset->id);
            if ($seen !== null && $known !== null && $known->number !== $seen) {
                throw DraftChanged::since($seen, $known);
            }

            $document = $normal + array_intersect_key($known->document ?? [], ['limits' => true]);

            return PlanDraft::query()->updateOrCreate(
                ['dataset_id' => $dataset->id],
                ['document' => $document, 'user_id' => $person->id, 'number' => ($known->number ?? 0) + 1],
            );
        });
    }

    /**
     * @param  array<array-key, mixed>  $document  with seals where values are masked for the person
     * @return array<string, mixed> as drafts are kept
     *
     * @throws \App\Problems\ValuesAreMasked when a masked value would be seen
     */
    public function opened(Dataset $dataset, array $document, User $person): array
    {
        return $this->masks->opened($dataset, $document, $this->normalized(...), $person);
    }

    /**
     * @param  array<array-key, mixed>  $document
     * @return array<string, mixed> as drafts are kept
     *
     * @throws \NineTally\Core\Plan\UnusablePlan when it does not follow the schema, with the places
     */
    public function normalized(array $document): array
    {
        $document['formatVersion'] ??= Plan::FORMAT_VERSION;
        $document['columnPairs'] = $this->withIds($document['columnPairs'] ?? []);
        $document['sides'] = $this->withoutEmpty($document['sides'] ?? []);
        $document['references'] = $this->withoutEmpty($document['references'] ?? []);
        $document['demands'] = $this->withoutEmpty($document['demands'] ?? []);
        $document['defaults'] = $this->withoutEmpty($document['defaults'] ?? []);
        $document['sensitive'] = $this->withoutEmpty($document['sensitive'] ?? []);
        $hasKey = ($document['key'] ?? []) !== [];
        $plan = Plan::fromJson(
            CanonicalJson::of(
                array_filter(
                    ['key' => $hasKey ? $document['key'] : self::NO_KEY_YET] + $document,
                    static fn(mixed $part, string $name): bool => ! in_array(
                        $name,
                        ['sides', 'references', 'demands', 'defaults', 'sensitive', 'totals', 'records', 'limits'],
                        true,
                    ) || $part !== [],
                    ARRAY_FILTER_USE_BOTH,
                ),
            ),
        );

        return [...$plan->toArray(), ...($hasKey ? [] : ['key' => []])];
    }

    /** A new pair gets the id that follows from its names; one that has an id keeps it whatever becomes of its rules. */
    private function withIds(mixed $pairs): mixed
    {
        if (! is_array($pairs)) {
            return $pairs;
        }

        return array_map(static function (mixed $pair): mixed {
            if (
                ! is_array($pair) ||
                ! is_string($pair['source'] ?? null) ||
                ! is_string($pair['target'] ?? null) ||
                ($pair['id'] ?? '') !== ''
            ) {
                return $pair;
            }

            return ['id' => ColumnPair::between($pair['source'], $pair['target'])->id] + $pair;
        }, $pairs);
    }

    /** What declares nothing is not there: an empty map cannot be told from an empty list. */
    private function withoutEmpty(mixed $part): mixed
    {
        return is_array($part)
            ? array_filter(array_map($this->withoutEmpty(...), $part), static fn(mixed $value): bool => $value !== [])
            : $part;
    }
}
