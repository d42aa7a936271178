<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

use Brick\Math\BigDecimal;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Profile\Demand;
use NineTally\Core\Repeats\PolicyId;
use NineTally\Core\Repeats\RepeatsPolicy;
use NineTally\Core\Shape\Shape;
use NineTally\Core\Shape\StepCatalogue;
use NineTally\Core\Value\DeclaredReading;
use NineTally\Core\Value\DeclaredRounding;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Tolerance;
use Opis\JsonSchema\Errors\ErrorFormatter;
use Opis\JsonSchema\Validator;

/**
 * A plan as JSON: upgraded where its format is older, and held against the schema before a Plan is made of it.
 *
 * @phpstan-import-type Declared from DeclaredReading
 * @phpstan-import-type StepDocument from StepCatalogue
 * @phpstan-import-type DemandDocument from Demand
 *
 * @phpstan-type SideDocument array{shape?: list<StepDocument>, columns?: array<string, Declared>, repeats?: array{policy: string, column?: string, kind?: string}, blankTokens?: list<string>, decimalMark?: string, groupMark?: string, dateForms?: list<string>, twoDigitYearsFrom?: int, yes?: list<string>, no?: list<string>, zone?: string}
 * @phpstan-type PairDocument array{id: string, source: string, target: string, kind?: string, forgives?: list<string>, tolerance?: array{measure: string, most: string}, rounding?: array{places: int, mode: key-of<DeclaredRounding::MODES>}, crosswalk?: list<array{source: string, target: string}>, sensitive?: bool}
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
        /** @var array{key: non-empty-list<array{source: string, target: string, forgives?: list<string>}>, columnPairs: list<PairDocument>, leftOut?: array{source?: list<string>, target?: list<string>}, sides?: array{source?: SideDocument, target?: SideDocument}, bridges?: list<array{source: list<string>, target: list<string>}>, demands?: array<string, DemandDocument>, defaults?: array{forgives?: list<string>}, sensitive?: array{source?: list<string>, target?: list<string>}} $checked */
        $checked = json_decode(json_encode($document, JSON_THROW_ON_ERROR), true, 64, JSON_THROW_ON_ERROR);

        return new Plan(
            array_map(static fn(array $column): KeyColumn => new KeyColumn($column['source'], $column['target'], $column['forgives'] ?? []), $checked['key']),
            array_map($this->pair(...), $checked['columnPairs']),
            ['source' => $checked['leftOut']['source'] ?? [], 'target' => $checked['leftOut']['target'] ?? []],
            $this->side('source', $checked['sides']['source'] ?? []),
            $this->side('target', $checked['sides']['target'] ?? []),
            array_map(static fn(array $bridge): Bridge => new Bridge($bridge['source'], $bridge['target']), $checked['bridges'] ?? []),
            $checked['demands'] ?? [],
            $checked['defaults']['forgives'] ?? [],
            ['source' => $this->sensitive($checked, 'source'), 'target' => $this->sensitive($checked, 'target')],
        );
    }

    /**
     * Once only pairs could be flagged, which meant the columns of both sides.
     *
     * @param  array{columnPairs: list<PairDocument>, sensitive?: array{source?: list<string>, target?: list<string>}}  $checked
     * @param  'source'|'target'  $side
     * @return list<string>
     */
    private function sensitive(array $checked, string $side): array
    {
        $flagged = array_filter($checked['columnPairs'], static fn(array $pair): bool => $pair['sensitive'] ?? false);

        return array_values(array_unique([...$checked['sensitive'][$side] ?? [], ...array_column($flagged, $side)]));
    }

    private function upgraded(mixed $document): mixed
    {
        // Version 1 had nothing but keys, pairs of text and what was left out: all of it means the same today.
        if ($document instanceof \stdClass && ($document->formatVersion ?? null) === 1) {
            $document->formatVersion = Plan::FORMAT_VERSION;
        }
        if ($document instanceof \stdClass && is_int($document->formatVersion ?? null) && $document->formatVersion > Plan::FORMAT_VERSION) {
            throw UnusablePlan::because([new Problem('/formatVersion', sprintf('The plan has format version %d, and this is Nine Tally for version %d. Use a newer Nine Tally.', $document->formatVersion, Plan::FORMAT_VERSION))]);
        }

        return $document;
    }

    private function mustFollowSchema(mixed $document): void
    {
        $validator = new Validator;
        $validator->setMaxErrors(20);
        $result = $validator->validate($document, (string) file_get_contents(__DIR__.'/plan.schema.json'));
        if ($result->isValid() || ($error = $result->error()) === null) {
            return;
        }
        $problems = [];
        /** @var array<string, list<string>> $byPointer */
        $byPointer = (new ErrorFormatter)->format($error);
        foreach ($byPointer as $pointer => $messages) {
            $problems[] = new Problem($pointer === '/' ? '' : $pointer, sprintf('Plan, at "%s": %s.', $pointer, implode('; ', $messages)));
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
            isset($pair['tolerance']) ? new Tolerance($pair['tolerance']['measure'], BigDecimal::of($pair['tolerance']['most'])) : null,
            isset($pair['rounding']) ? new DeclaredRounding($pair['rounding']['places'], $pair['rounding']['mode']) : null,
            array_column($pair['crosswalk'] ?? [], 'target', 'source'),
        );
    }

    /** @param SideDocument $side */
    private function side(string $name, array $side): SideRules
    {
        $repeats = $side['repeats'] ?? ['policy' => PolicyId::SetAside->value];
        $policy = PolicyId::from($repeats['policy']);
        if ($policy->needsColumn() !== isset($repeats['column'])) {
            throw UnusablePlan::because([new Problem("/sides/{$name}/repeats/column", $policy->needsColumn() ? sprintf('The policy "%s" needs the column whose value decides.', $policy->value) : sprintf('The policy "%s" looks at no column. Take the column out.', $policy->value))]);
        }

        /** @var Declared $declared */
        $declared = array_diff_key($side, ['shape' => true, 'columns' => true, 'repeats' => true]);

        return new SideRules(
            $declared,
            $side['columns'] ?? [],
            isset($repeats['column']) ? RepeatsPolicy::byColumn($policy, $repeats['column'], Kind::from($repeats['kind'] ?? Kind::Text->value)) : RepeatsPolicy::of($policy),
            new Shape($side['shape'] ?? []),
        );
    }
}
