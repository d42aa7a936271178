<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

use Brick\Math\BigDecimal;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Limits\Limit;
use NineTally\Core\Preparation\Preparation;
use NineTally\Core\Preparation\ReferenceRules;
use NineTally\Core\Preparation\StepCatalogue;
use NineTally\Core\Profile\ColumnConstraint;
use NineTally\Core\Records\RequiredRecord;
use NineTally\Core\Repeats\ChosenRow;
use NineTally\Core\Repeats\PolicyId;
use NineTally\Core\Row\Excerpt;
use NineTally\Core\Row\Side;
use NineTally\Core\Totals\ControlTotal;
use NineTally\Core\Value\DeclaredForms;
use NineTally\Core\Value\DeclaredReading;
use NineTally\Core\Value\DeclaredRounding;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Tolerance;
use Opis\JsonSchema\Errors\ErrorFormatter;

/**
 * A plan as JSON: upgraded where its format is older, and held against the schema before a Plan is made of it.
 *
 * @phpstan-import-type Declared from DeclaredReading
 * @phpstan-import-type StepDocument from StepCatalogue
 * @phpstan-import-type DemandDocument from ColumnConstraint
 * @phpstan-import-type TotalDocument from ControlTotal
 * @phpstan-import-type RecordDocument from RequiredRecord
 * @phpstan-import-type LimitDocument from Limit
 * @phpstan-import-type ChosenDocument from ChosenRow
 * @phpstan-import-type Policy from PolicyDocument
 *
 * @phpstan-type SideDocument array{preparation?: list<StepDocument>, columns?: array<string, Declared>, repeats?: Policy,
 *     blankTokens?: list<string>, decimalMark?: string, groupMark?: string, currency?: string, percent?: 'number'|'share',
 *     negatives?: 'minus'|'parentheses'|'minus-behind', dateForms?: list<string>, twoDigitYearsFrom?: int,
 *     yes?: list<string>, no?: list<string>, zone?: string}
 * @phpstan-type ReferenceDocument array{preparation?: list<StepDocument>, columns?: array<string, Declared>, key?: list<string>,
 *     blankTokens?: list<string>, decimalMark?: string, groupMark?: string, currency?: string, percent?: 'number'|'share',
 *     negatives?: 'minus'|'parentheses'|'minus-behind', dateForms?: list<string>, twoDigitYearsFrom?: int,
 *     yes?: list<string>, no?: list<string>, zone?: string}
 * @phpstan-type PairDocument array{id: string, source: string, target: string, kind?: string, forgives?: list<string>,
 *     tolerance?: array{by: string, most: string}, rounding?: array{places: int, mode: key-of<DeclaredRounding::MODES>},
 *     crosswalk?: list<array{source: string, target: string}>, sensitive?: bool}
 */
final readonly class PlanDocument
{
    public function __construct(private string $json) {}

    /** @throws UnusablePlan with every problem and its place */
    public function plan(): Plan
    {
        try {
            $document = json_decode($this->json, false, 64, JSON_THROW_ON_ERROR);
        } catch (\JsonException $broken) {
            throw UnusablePlan::because([new Problem('', sprintf('The plan is not JSON: %s.', $broken->getMessage()))]);
        }
        $document = $this->upgraded($document);
        $this->mustFollowSchema($document);
        $upgraded = json_encode($document, JSON_THROW_ON_ERROR);
        // Long lists are not held twice.
        unset($document);
        /** @var array<string, mixed> $checked */
        $checked = json_decode($upgraded, true, 64, JSON_THROW_ON_ERROR);
        /** @var non-empty-list<array{source: string, target: string, forgives?: list<string>}> $key */
        $key = $checked['key'];
        /** @var list<PairDocument> $pairs */
        $pairs = $checked['columnPairs'];
        /** @var array{source?: list<string>, target?: list<string>} $leftOut */
        $leftOut = $checked['leftOut'] ?? [];
        /** @var array{source?: SideDocument, target?: SideDocument} $sides */
        $sides = $checked['sides'] ?? [];
        /** @var array<string, ReferenceDocument> $references */
        $references = $checked['references'] ?? [];
        /** @var array<string, DemandDocument> $demands */
        $demands = $checked['demands'] ?? [];
        /** @var array{forgives?: list<string>} $defaults */
        $defaults = $checked['defaults'] ?? [];
        /** @var array{source?: list<string>, target?: list<string>} $sensitive */
        $sensitive = $checked['sensitive'] ?? [];
        /** @var list<TotalDocument> $totals */
        $totals = $checked['totals'] ?? [];
        /** @var list<RecordDocument> $records */
        $records = $checked['records'] ?? [];
        /** @var list<LimitDocument> $limits */
        $limits = $checked['limits'] ?? [];
        /** @var list<ChosenDocument> $keptRows */
        $keptRows = $checked['keptRows'] ?? [];
        $problems = [
            ...$this->entriesThatStandTwice($pairs),
            ...$this->stepEntriesThatStandTwice('sides', $sides),
            ...$this->stepEntriesThatStandTwice('references', $references),
        ];
        if ($problems !== []) {
            throw UnusablePlan::because($problems);
        }
        $rules = array_map($this->reference(...), $references);
        return new Plan(
            array_map(
                static fn(array $column): KeyColumn => new KeyColumn($column['source'], $column['target'], $column['forgives'] ?? []),
                $key,
            ),
            array_map($this->pair(...), $pairs),
            ['source' => $leftOut['source'] ?? [], 'target' => $leftOut['target'] ?? []],
            $this->side(Side::Source, $sides['source'] ?? [], $rules, $keptRows),
            $this->side(Side::Target, $sides['target'] ?? [], $rules, $keptRows),
            Bridges::fromDocument($checked),
            $rules,
            new ColumnRules(
                $demands,
                $defaults['forgives'] ?? [],
                ColumnRules::sensitive($pairs, $sensitive),
                array_map(ControlTotal::fromArray(...), $totals),
                array_map(RequiredRecord::fromArray(...), $records),
                array_map(Limit::fromArray(...), $limits),
            ),
        );
    }

    private function upgraded(mixed $document): mixed
    {
        if ($document instanceof \stdClass) {
            PlanUpgrade::toCurrent($document);
        }
        if ($document instanceof \stdClass && is_int($document->formatVersion ?? null) && $document->formatVersion > Plan::FORMAT_VERSION) {
            throw UnusablePlan::because([
                new Problem(
                    '/formatVersion',
                    "The plan has format version {$document->formatVersion}, and this is Nine Tally for version ".
                        Plan::FORMAT_VERSION.'. Use a newer Nine Tally.',
                ),
            ]);
        }

        return $document;
    }

    private function mustFollowSchema(mixed $document): void
    {
        $lists = new LongLists($document);
        $error = PlanSchema::errorOf($lists->shorter);
        if ($error === null) {
            return;
        }
        $problems = [];
        /** @var array<string, list<string>> $byPointer */
        $byPointer = (new ErrorFormatter)->format($error, formatter: SchemaInWords::problem(...));
        foreach ($byPointer as $pointer => $messages) {
            $place = $pointer === '/' ? '' : $lists->place($pointer);
            $problems[] = new Problem(
                $place,
                sprintf('%s %s.', ucfirst(SchemaInWords::place($place)), implode(', and ', array_unique($messages))),
            );
        }
        throw UnusablePlan::because($problems !== [] ? $problems : [new Problem('', 'The plan does not follow its schema.')]);
    }

    /** @param PairDocument $pair */
    private function pair(array $pair): ColumnPair
    {
        return new ColumnPair(
            $pair['id'],
            $pair['source'],
            $pair['target'],
            Kind::from($pair['kind'] ?? Kind::Text->value),
            $pair['forgives'] ?? [],
            isset($pair['tolerance']) ? new Tolerance($pair['tolerance']['by'], BigDecimal::of($pair['tolerance']['most'])) : null,
            isset($pair['rounding']) ? new DeclaredRounding($pair['rounding']['places'], $pair['rounding']['mode']) : null,
            array_column($pair['crosswalk'] ?? [], 'target', 'source'),
        );
    }

    /** @param ReferenceDocument $reference */
    private function reference(array $reference): ReferenceRules
    {
        /** @var Declared $declared */
        $declared = array_diff_key($reference, ['preparation' => true, 'columns' => true, 'key' => true]);

        return new ReferenceRules(
            new Preparation($reference['preparation'] ?? [], DeclaredForms::of($declared, $reference['columns'] ?? [])),
            $reference['key'] ?? [],
        );
    }

    /**
     * @param  list<PairDocument>  $pairs
     * @return list<Problem>
     */
    private function entriesThatStandTwice(array $pairs): array
    {
        $problems = [];
        foreach ($pairs as $position => $pair) {
            $problems = [...$problems, ...$this->twice("/columnPairs/{$position}/crosswalk", $pair['crosswalk'] ?? [])];
        }

        return $problems;
    }

    /**
     * @param  array<string, array{preparation?: list<StepDocument>, ...}>  $prepared
     * @return list<Problem>
     */
    private function stepEntriesThatStandTwice(string $of, array $prepared): array
    {
        $problems = [];
        foreach ($prepared as $name => $rules) {
            foreach ($rules['preparation'] ?? [] as $position => $step) {
                $problems = [...$problems, ...$this->twice("/{$of}/{$name}/preparation/{$position}/entries", $step['entries'] ?? [])];
            }
        }

        return $problems;
    }

    /**
     * Two entries for one value would make it a matter of chance which of them holds.
     *
     * @param  list<array{source: string, target: string}>  $entries
     * @return list<Problem>
     */
    private function twice(string $place, array $entries): array
    {
        $problems = $first = [];
        foreach ($entries as $position => ['source' => $value]) {
            if (isset($first[$value])) {
                $problems[] = new Problem(
                    "{$place}/{$position}",
                    sprintf(
                        'The value "%s" has two entries, %s/%d and %s/%d. Take one of them out.',
                        Excerpt::of((string) $value),
                        $place,
                        $first[$value],
                        $place,
                        $position,
                    ),
                );
            }
            $first[$value] ??= $position;
        }

        return $problems;
    }

    /**
     * @param  SideDocument  $side
     * @param  array<string, ReferenceRules>  $references
     * @param  list<ChosenDocument>  $keptRows  of both sides
     */
    private function side(Side $of, array $side, array $references, array $keptRows): SideRules
    {
        /** @var Declared $declared */
        $declared = array_diff_key($side, ['preparation' => true, 'columns' => true, 'repeats' => true]);

        return new SideRules(
            $declared,
            $side['columns'] ?? [],
            (new PolicyDocument("/sides/{$of->value}/repeats", $side['repeats'] ?? ['policy' => PolicyId::SetAside->value]))->policy(),
            new Preparation($side['preparation'] ?? [], null, $references),
            array_values(array_filter(
                array_map(ChosenRow::fromArray(...), $keptRows),
                static fn(ChosenRow $chosen): bool => $chosen->side === $of,
            )),
        );
    }
}
