<?php

declare(strict_types=1);

namespace App\Actions\Review;

use App\Actions\Match\SaveDraft;
use App\Models\Dataset;
use App\Models\Tally;
use App\Models\User;
use App\Problems\Conflict;
use App\Queries\Review\SideMask;
use App\Questions\Answers;
use App\Questions\BothSides;
use App\Questions\NearValuesFound;
use NineTally\Core\Likeness\LikenessColumn;
use NineTally\Core\Likeness\LikenessInWords;
use NineTally\Core\Likeness\LikenessKind;
use NineTally\Core\Likeness\NearValues;
use NineTally\Core\Plan\Bridges;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/**
 * Values of a column that may mean the same on both sides; those that a person confirms are a crosswalk of the plan.
 *
 * @phpstan-import-type Found from NearValuesFound
 * @phpstan-import-type NearValue from NearValues
 *
 * @phpstan-type Pair array{source: string, target: string, isOfKey: bool, differing?: int}
 * @phpstan-type Entry array{source: string, target: string}
 */
final readonly class NearValueLooks
{
    public function __construct(private Answers $answers, private SaveDraft $saveDraft, private DraftCrosswalk $crosswalk) {}

    /**
     * @param  string|null  $column  of the source, as the plan pairs it; null for the first
     * @param  string|null  $kind  of likeness; null for what fits
     * @param  Sides<SideMask>  $masks
     * @return array<string, mixed>
     *
     * @throws \App\Problems\ValuesAreMasked when the values of the column are masked
     */
    public function look(Dataset $dataset, ?string $column, ?string $kind, Sides $masks): array
    {
        $sides =
            BothSides::of($dataset) ??
            throw Conflict::because('no-delivery', 'Both sides must have delivered before their values can be held against each other.');
        $draft = $dataset->draft()->first();
        $pairs = $this->byDifference($this->pairs($draft->document ?? []), $dataset->latestTally());
        $pair = array_values(array_filter($pairs, static fn(array $one): bool => $one['source'] === $column))[0] ?? $pairs[0] ?? null;
        if ($draft === null || $pair === null) {
            throw Conflict::because('no-plan', 'No columns are paired yet. Pair them in Match.');
        }
        foreach (Side::cases() as $side) {
            $masks->of($side)->mustAllow([$pair[$side->value]]);
        }
        $answer = $this->answers->to(new NearValuesFound(
            $sides,
            ['source' => $pair['source'], 'target' => $pair['target']],
            $kind,
            Bridges::fromDocument($draft->document)->equivalents,
        ));
        /** @var Found|null $found */
        $found = $answer->content;

        return [
            ...$answer->progress(),
            'pairs' => $pairs,
            'pair' => $pair,
            'draft' => $draft->number,
            'entries' => $this->crosswalk->entries($draft->document, $pair),
            'found' => $found === null ? null : $this->told($found, $pair),
        ];
    }

    /**
     * @param  string  $column  of the source
     * @param  list<Entry>  $entries
     * @param  bool  $isConfirmed  else they are taken back
     * @param  int  $seen  the number of the draft that the person saw
     * @return int the number of the draft
     *
     * @throws \App\Problems\DraftChanged when somebody else has saved another since
     */
    public function rule(Dataset $dataset, string $column, array $entries, bool $isConfirmed, User $person, int $seen): int
    {
        $draft = $dataset->draft()->firstOrFail();
        $pair =
            array_values(array_filter($this->pairs($draft->document), static fn(array $one): bool => $one['source'] === $column))[0] ??
            throw Conflict::because('no-pair', "No column is paired with {$column} any more. Look again.");

        return ($this->saveDraft)(
            $dataset,
            $this->crosswalk->with($draft->document, $pair, $entries, $isConfirmed),
            $person,
            $seen,
        )->number;
    }

    /**
     * @param  array<string, mixed>  $document
     * @return list<Pair>
     */
    private function pairs(array $document): array
    {
        $pairs = [];
        foreach (['key', 'columnPairs'] as $part) {
            /** @var list<array{source: string, target: string, kind?: string}> $ofPart */
            $ofPart = $document[$part] ?? [];
            foreach ($ofPart as $pair) {
                if (($pair['kind'] ?? 'text') === 'text') {
                    $pairs[] = ['source' => $pair['source'], 'target' => $pair['target'], 'isOfKey' => $part === 'key'];
                }
            }
        }

        return $pairs;
    }

    /**
     * @param  list<Pair>  $pairs
     * @return list<Pair> those in which most differs in the latest tally first; of the key, rows that have no counterpart
     */
    private function byDifference(array $pairs, ?Tally $tally): array
    {
        $rows = $tally->summary['rows'] ?? [];
        $ofKey = min($rows['source']['missing'] ?? 0, $rows['target']['extra'] ?? 0);
        $differing = [];
        foreach ($tally?->figuresByColumn() ?? [] as $column) {
            $differing[$column['source']] = $column['values']['differing'];
        }
        $pairs = array_map(
            static fn(array $pair): array => [...$pair, 'differing' => $pair['isOfKey'] ? $ofKey : $differing[$pair['source']] ?? 0],
            $pairs,
        );
        usort($pairs, static fn(array $one, array $other): int => $other['differing'] <=> $one['differing']);

        return $pairs;
    }

    /**
     * @param  Found  $found
     * @param  Pair  $pair
     * @return array<string, mixed>
     */
    private function told(array $found, array $pair): array
    {
        $column = [new LikenessColumn(LikenessKind::from($found['kind']), 1)];
        $words = new LikenessInWords;

        return [...$found, 'values' => array_map(static fn(array $value): array => [
            ...$value,
            'hasRival' => NearValues::hasRival($value),
            'candidates' => array_map(static fn(array $one): array => [
                ...$one,
                'reason' => match ($reason = $words->reason($column, [$pair['source']], [$value['value']], [$one['value']])) {
                    "same {$pair['source']}" => 'differs in form alone',
                    default => $reason,
                },
            ], $value['candidates']),
        ], $found['values'])];
    }
}
