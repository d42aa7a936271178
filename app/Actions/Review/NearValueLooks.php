<?php

declare(strict_types=1);

namespace App\Actions\Review;

use App\Actions\Match\SaveDraft;
use App\Models\Dataset;
use App\Models\Tally;
use App\Models\User;
use App\Problems\Conflict;
use App\Queries\Review\Masks;
use App\Queries\Review\SideMask;
use App\Questions\Answers;
use App\Questions\BothSides;
use App\Questions\NearValuesFound;
use App\Questions\ValuesOfReference;
use NineTally\Core\Advice\ColumnNames;
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
 * @phpstan-type Pair array{source: string, target: string, isOfKey: bool, differing?: int, reference?: string}
 * @phpstan-type Reference array{name: string, column: string}
 * @phpstan-type Asked array{column: string|null, kind: string|null, reference: Reference|null, equal: list<string>, alike: list<string>}
 * @phpstan-type Beside array{source: string, target: string}
 * @phpstan-type Entry array{source: string, target: string}
 */
final readonly class NearValueLooks
{
    private const MOST_REFERENCES = 20;

    public function __construct(
        private Answers $answers,
        private SaveDraft $saveDraft,
        private DraftCrosswalk $crosswalk,
        private Masks $masks,
    ) {}

    /**
     * @param  Asked  $asked
     * @param  Sides<SideMask>  $masks
     * @return array<string, mixed>
     *
     * @throws \App\Problems\ValuesAreMasked when the values of the column are masked
     */
    public function look(Dataset $dataset, array $asked, Sides $masks, User $person): array
    {
        $sides =
            BothSides::of($dataset) ??
            throw Conflict::because('no-delivery', 'Both sides must have delivered before their values can be held against each other.');
        $draft = $dataset->draftNow();
        $pairs = $this->byDifference($this->pairs($draft->document ?? []), $dataset->latestTally());
        $pair = $this->pair($pairs, $asked['column'], $asked['reference']) ?? $pairs[0] ?? null;
        if ($draft === null || $pair === null) {
            throw Conflict::because('no-plan', 'No columns are paired yet. Pair them in Match.');
        }
        $besides = $this->besides($dataset, $pairs, $pair, $asked['reference']);
        $named = static fn(array $columns): array => array_values(array_filter(
            $besides,
            static fn(array $one): bool => in_array($one['source'], $columns, true),
        ));
        [$equal, $alike] = [$named($asked['equal']), $named($asked['alike'])];
        $looked = [$pair, ...$equal, ...$alike];
        $reference = $this->reference($dataset, $sides, $asked['reference'], array_column($looked, 'target'), $person);
        foreach ($reference === null ? Side::cases() : [Side::Source] as $side) {
            $masks->of($side)->mustAllow(array_column($looked, $side->value));
        }
        $answer = $this->answers->to(new NearValuesFound(
            $reference === null ? $sides : $sides->beforeStep($this->crosswalk->stepBehind($draft->document, $pair)),
            ['source' => $pair['source'], 'target' => $pair['target']],
            $asked['kind'],
            Bridges::fromDocument($draft->document)->equivalents,
            $reference,
            $equal,
            $alike,
        ));
        /** @var Found|null $found */
        $found = $answer->content;

        return [
            ...$answer->progress(),
            'pairs' => $pairs,
            'pair' => $pair,
            'besides' => $besides,
            'references' => $this->references($dataset),
            'draft' => $draft->number,
            'entries' => $this->crosswalk->entries($draft->document, $pair),
            'found' => $found === null ? null : $this->told($found, $pair),
        ];
    }

    /**
     * @param  list<Pair>  $pairs
     * @param  Reference|null  $reference  whose entries take the place of the target
     * @return Pair|null
     */
    private function pair(array $pairs, ?string $column, ?array $reference): ?array
    {
        $pair = array_values(array_filter($pairs, static fn(array $one): bool => $one['source'] === $column))[0] ?? null;

        return $reference === null || $column === null
            ? $pair
            : [
                'source' => $column,
                'target' => $reference['column'],
                'isOfKey' => false,
                'reference' => $reference['name'],
                'differing' => 0,
            ];
    }

    /**
     * @param  list<Pair>  $pairs
     * @param  Pair  $pair
     * @param  Reference|null  $reference
     * @return list<Beside> columns that can be asked to be equal, or alike, beside the values: of a reference those of the same names
     */
    private function besides(Dataset $dataset, array $pairs, array $pair, ?array $reference): array
    {
        $named = array_column($pairs, 'target', 'source');
        if ($reference !== null) {
            $of = array_column($this->references($dataset), 'columns', 'name')[$reference['name']] ?? [];
            $named = ColumnNames::pairs($dataset->latestDelivery(Side::Source)?->namedColumns()->names ?? [], $of);
        }
        unset($named[$pair['source']]);

        return array_map(
            static fn(int|string $source, string $target): array => ['source' => (string) $source, 'target' => $target],
            array_keys($named),
            $named,
        );
    }

    /**
     * @param  Reference|null  $asked
     * @param  list<string>  $columns  of it that are looked at
     *
     * @throws \App\Problems\ValuesAreMasked
     */
    private function reference(Dataset $dataset, BothSides $sides, ?array $asked, array $columns, User $person): ?ValuesOfReference
    {
        if ($asked === null) {
            return null;
        }
        $reference = ValuesOfReference::of($dataset, $asked['name'], $asked['column'], $sides->rules(Side::Source)->preparation)
            ?? throw Conflict::because(
                'no-reference',
                "There is no reference \"{$asked['name']}\". Add a dataset of this name to the migration and deliver it.",
            );
        $delivery = $reference->delivery();
        $this->masks
            ->through($delivery->dataset, $delivery->side, $reference->rules()->preparation, $person)
            ->mustAllow($columns);

        return $reference;
    }

    /** @return list<array{name: string, columns: list<string>}> datasets that values can be held against */
    private function references(Dataset $dataset): array
    {
        $references = [];
        foreach (
            $dataset->migration->datasets()->whereKeyNot($dataset->id)->orderBy('name')->limit(self::MOST_REFERENCES)->get()
            as $other
        ) {
            $delivery = $other->latestDelivery(Side::Source) ?? $other->latestDelivery(Side::Target);
            if ($delivery !== null) {
                $references[] = ['name' => $other->name, 'columns' => $delivery->namedColumns()->names];
            }
        }

        return $references;
    }

    /**
     * @param  string  $column  of the source
     * @param  Reference|null  $reference  that its values are held against
     * @param  list<Entry>  $entries
     * @param  bool  $isConfirmed  else they are taken back
     * @param  int  $seen  the number of the draft that the person saw
     * @return int the number of the draft
     *
     * @throws \App\Problems\DraftChanged when somebody else has saved another since
     */
    public function rule(
        Dataset $dataset,
        string $column,
        ?array $reference,
        array $entries,
        bool $isConfirmed,
        User $person,
        int $seen,
    ): int {
        $draft = $dataset->draft()->firstOrFail();
        $pair =
            $this->pair($this->pairs($draft->document), $column, $reference) ??
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
        $columns = array_map(
            static fn(string $kind): LikenessColumn => new LikenessColumn(LikenessKind::from($kind), 1),
            [$found['kind'], ...array_column($found['alike'], 'kind')],
        );
        $names = [$pair['source'], ...array_column($found['alike'], 'source')];
        $words = new LikenessInWords;

        return [...$found, 'values' => array_map(static fn(array $value): array => [
            ...$value,
            'hasRival' => NearValues::hasRival($value),
            'candidates' => array_map(static fn(array $one): array => [
                ...$one,
                'reason' => match (
                    $reason = $words->reason($columns, $names, [$value['value'], ...$value['beside']], [$one['value'], ...$one['beside']])
                ) {
                    "same {$pair['source']}" => 'differs in form alone',
                    default => $reason,
                },
            ], $value['candidates']),
        ], $found['values'])];
    }
}
