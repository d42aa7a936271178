<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Jobs\ProfileDelivery;
use App\Models\Answer;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\DeliveryProfile;
use App\Queries\Review\SideMask;
use App\Questions\Answers;
use App\Questions\BothSides;
use App\Questions\ColumnMatching;
use NineTally\Core\Advice\ColumnNames;
use NineTally\Core\Profile\ColumnDifference;
use NineTally\Core\Profile\ValueDistribution;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/**
 * The columns of both sides next to each other, as delivered, with what they hold.
 *
 * @phpstan-import-type Column from ValueDistribution
 */
final readonly class ProfileBothSides
{
    public function __construct(private CompareDeliveries $changes, private Answers $answers) {}

    /**
     * @param  Sides<SideMask>  $masks
     * @return array<string, mixed>
     */
    public function __invoke(Dataset $dataset, Sides $masks): array
    {
        $profiles = [
            'source' => $this->profile($dataset->latestDelivery(Side::Source)),
            'target' => $this->profile($dataset->latestDelivery(Side::Target)),
        ];
        $columns = ['source' => $this->byName($profiles['source']), 'target' => $this->byName($profiles['target'])];
        $rows = [];
        foreach ($this->pairs($dataset, $columns) as [$source, $target]) {
            [$ofSource, $ofTarget] = [
                $source === null ? null : $columns['source'][$source],
                $target === null ? null : $columns['target'][$target],
            ];
            $lie = ValueDistribution::of($ofSource, $ofTarget);
            $isHidden =
                ($source !== null && $masks->source->hidesDelivered($source)) ||
                ($target !== null && $masks->target->hidesDelivered($target));
            $difference = ColumnDifference::of($ofSource, $ofTarget, $isHidden);
            $rows[] = [
                'source' => $this->shown($ofSource, $isHidden),
                'target' => $this->shown($ofTarget, $isHidden),
                'by' => $lie->by,
                // A bin is called by what is in it.
                'bins' => $isHidden ? [] : $lie->bins,
                'looksChanged' => $lie->looksChanged,
                'differs' => $difference->facts,
                'weight' => $difference->weight,
            ];
        }

        return [
            'isReading' =>
                array_filter(
                    $profiles,
                    static fn(?DeliveryProfile $profile): bool => $profile !== null &&
                        $profile->columns === null &&
                        $profile->problem === null,
                ) !== [],
            'problem' => $profiles['source']->problem ?? ($profiles['target']->problem ?? null),
            'rows' => $rows,
            'changes' => [
                'source' => $this->changes->ofDelivery($dataset->latestDelivery(Side::Source)),
                'target' => $this->changes->ofDelivery($dataset->latestDelivery(Side::Target)),
            ],
        ];
    }

    /** @return array<string, Column> */
    private function byName(?DeliveryProfile $profile): array
    {
        $columns = [];
        foreach ($profile->columns ?? [] as $column) {
            $columns[$column['name']] = $column;
        }

        return $columns;
    }

    private function profile(?Delivery $delivery): ?DeliveryProfile
    {
        if ($delivery === null) {
            return null;
        }
        $profile = DeliveryProfile::query()->createOrFirst(['delivery_id' => $delivery->id]);
        if ($profile->wasRecentlyCreated) {
            ProfileDelivery::dispatch($delivery->id);
            $profile->refresh();
        }

        return $profile;
    }

    /** @return array<array-key, string> source column => target column, where nothing else comes near */
    private function proposed(Dataset $dataset): array
    {
        $sides = BothSides::of($dataset);
        /** @var list<array{source: string, target: string, strength: string}> $proposals */
        $proposals =
            $sides === null ? [] : Answer::query()->find($this->answers->digest(new ColumnMatching($sides)))->content['proposals'] ?? [];

        return array_column(array_filter($proposals, static fn(array $one): bool => $one['strength'] === 'strong'), 'target', 'source');
    }

    /**
     * By the plan's pairs, by what is proposed, else by name; in the order of the source, then of what only the target has.
     *
     * @param  array{source: array<string, Column>, target: array<string, Column>}  $columns  by name
     * @return list<array{string|null, string|null}>
     */
    private function pairs(Dataset $dataset, array $columns): array
    {
        $document = $dataset->draft()->first()->document ?? ['key' => [], 'columnPairs' => []];
        $planned = array_column([...$document['columnPairs'], ...$document['key']], 'target', 'source');
        // What the plan does not pair stands beside what is proposed for it, else beside what its name says.
        $partners = $planned + $this->proposed($dataset) + ColumnNames::pairs(
            array_map(strval(...), array_keys($columns['source'])),
            array_map(strval(...), array_keys($columns['target'])),
        );
        $pairs = $taken = [];
        foreach (array_keys($columns['source']) as $name) {
            $partner = $partners[$name] ?? $name;
            $partner = is_string($partner) && isset($columns['target'][$partner]) && ! isset($taken[$partner]) ? $partner : null;
            $pairs[] = [(string) $name, $partner];
            if ($partner !== null) {
                $taken[$partner] = true;
            }
        }
        foreach (array_keys(array_diff_key($columns['target'], $taken)) as $name) {
            $pairs[] = [null, (string) $name];
        }

        return $pairs;
    }

    /**
     * Everything but the sample, which is for drawing, and what advice is made of; of a column that is masked what counts its values, and
     * none of them.
     *
     * @param  Column|null  $column
     * @return array<array-key, mixed>|null
     */
    private function shown(?array $column, bool $isHidden): ?array
    {
        return $column === null
            ? null
            : [
                ...array_diff_key($column, ['sample' => true, 'readings' => true]),
                ...$isHidden ? ['range' => null, 'sum' => null, 'blank_tokens' => [], 'most_frequent' => [], 'shapes' => []] : [],
            ];
    }
}
