<?php

declare(strict_types=1);

namespace App\Queries\Prepare;

use App\Adapters\Deliveries\DeliveryReader;
use App\Adapters\Deliveries\DeliverySample;
use App\Adapters\Deliveries\PreparationInputs;
use App\Adapters\Deliveries\PreparedSides;
use App\Models\Delivery;
use App\Queries\Review\SideMask;
use NineTally\Core\Advice\FoldAdvice;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Preparation\Preparation;
use NineTally\Core\Preparation\StepCatalogue;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Preparation\StepFigures;
use NineTally\Core\Preparation\UnusableStep;
use NineTally\Core\Row\RecordPlace;
use NineTally\Core\Tally\Workspace;

/**
 * What the steps of a side do, tried on a sample at once: each step as a sentence with its figures, and rows before and after the
 * one that is looked at. Where the side has been prepared whole, the figures are those of all its rows.
 *
 * @phpstan-import-type StepDocument from StepCatalogue
 */
final readonly class PreparationTrial
{
    /** Values that a note is about, most frequent first. */
    private const VALUES = 20;

    /** Prepared rows that are shown. */
    private const READY = 20;

    public function __construct(private DeliverySample $sample, private PreparedSides $sides) {}

    /**
     * @param  string|null  $chosen  the step whose rows are looked at
     * @return array<string, mixed>
     */
    public function __invoke(Delivery $delivery, SideRules $rules, PreparationInputs $inputs, ?string $chosen, SideMask $mask): array
    {
        ['columns' => $columns, 'rows' => $sample] = $this->sample->of($delivery);
        $workspace = Workspace::make();
        try {
            [$steps, $prepared, $examples] = $this->tried(
                $rules->preparation,
                $columns,
                $sample,
                $inputs,
                $chosen,
                $workspace->path,
                $mask,
            );
        } finally {
            $workspace->remove();
        }
        $rows = count($prepared);
        $whole = $this->sides->of($delivery, $rules, $inputs);
        $isWhole = $this->sample->isWhole($delivery);
        if (! $isWhole && $whole->isWhole()) {
            $isWhole = true;
            $ledger = $whole->ledger();
            $figures = array_column($ledger->steps, 'figures', 'id');
            $steps = array_map(
                fn(array $step): array => isset($figures[$step['id']])
                    ? [...$step, 'figures' => $this->figures($figures[$step['id']], $mask)]
                    : $step,
                $steps,
            );
            $rows = $ledger->prepared;
        }

        return [
            'deliveryId' => $delivery->id,
            'rows' => $delivery->delivered_count,
            'columns' => $columns,
            'sampleRows' => count($sample),
            'isWhole' => $isWhole || $rules->preparation->isEmpty(),
            'isBeginning' => $this->sample->isBeginning($delivery),
            'steps' => $steps,
            'readyRows' => $rules->preparation->isEmpty() ? $delivery->delivered_count : $rows,
            'readyColumns' => $ready = $steps === [] ? $columns : $steps[count($steps) - 1]['columns'],
            // What a step that turns columns into rows begins with.
            'alike' => FoldAdvice::runs($ready)[0] ?? [],
            'ready' => $mask
                ->ofPrepared()
                ->rows(
                    $steps === [] ? $columns : $steps[count($steps) - 1]['columns'],
                    array_map(self::row(...), array_slice($prepared, 0, self::READY)),
                ),
            'examples' => $examples,
        ];
    }

    /**
     * @param  list<string>  $columns
     * @param  list<array{int, list<string>}>  $sample
     * @return array{list<array{id: string, kind: string, isOff: bool, sentence: string, problem: string|null, columns: list<string>,
     *     figures: array<string, mixed>|null}>, list<array{int, list<string>}>, array<string, mixed>|null} the steps, the rows after them,
     *     and those of the step that is looked at
     */
    private function tried(
        Preparation $preparation,
        array $columns,
        array $sample,
        PreparationInputs $inputs,
        ?string $chosen,
        string $folder,
        SideMask $mask,
    ): array {
        $steps = [];
        $examples = null;
        $isBroken = false;
        $rows = $sample;
        $references = $this->sides->references($inputs, $preparation, $folder);
        foreach ($preparation->steps as $position => $document) {
            $isOff = $document['off'] ?? false;
            [$sentence, $problem, $figures] = [$document['kind'], null, null];
            try {
                $step = StepCatalogue::make($document);
                $sentence = $step->sentence();
                if (! $isOff && ! $isBroken) {
                    $counted = new StepFigures;
                    $after = [];
                    $pairs = new StepExamples($rows);
                    $context = new StepContext(
                        $counted,
                        $folder,
                        $references,
                        $inputs->parameters,
                        onCondensed: $pairs->condensed(...),
                        forms: $preparation->formsInto($position + 1),
                    );
                    foreach ($step->run($pairs->numbered(), $columns, $context) as $number => $cells) {
                        $after[] = [$pairs->made($number, $cells), $cells];
                    }
                    $columnsAfter = $step->columns($columns);
                    $examples =
                        $document['id'] === $chosen
                            ? $this->masked($pairs->shown($columns, $columnsAfter), $mask, $position + 1)
                            : $examples;
                    [$columns, $rows, $figures] = [$columnsAfter, $after, $this->figures($counted->toArray(), $mask)];
                }
            } catch (UnusableStep $unusable) {
                $problem = $unusable->getMessage();
                $isBroken = $isBroken || ! $isOff;
            }
            $steps[] = [
                'id' => $document['id'],
                'kind' => $document['kind'],
                'isOff' => $isOff,
                'sentence' => $sentence,
                'problem' => $problem,
                'columns' => $columns,
                'figures' => $figures,
            ];
        }

        return [$steps, $rows, $examples];
    }

    /**
     * @param  array{columnsBefore: list<string>, columnsAfter: list<string>, rows: list<array<string, mixed>>}  $examples
     * @return array<string, mixed>
     */
    private function masked(array $examples, SideMask $mask, int $step): array
    {
        [$before, $after] = [$mask->behind($step - 1), $mask->behind($step)];
        /** @var list<array{before: list<string>, with: list<array{before: list<string>}>, after: list<list<string>>}> $rows */
        $rows = $examples['rows'];
        return [
            ...$examples,
            'rows' => array_map(static fn(array $row): array => [
                ...$row,
                'before' => $before->cells($examples['columnsBefore'], $row['before']),
                'with' => array_map(
                    static fn(array $with): array => [...$with, 'before' => $before->cells($examples['columnsBefore'], $with['before'])],
                    $row['with'],
                ),
                'after' => array_map(static fn(array $cells): array => $after->cells($examples['columnsAfter'], $cells), $row['after']),
            ], $rows),
        ];
    }

    /**
     * @param  array{int, list<string>}  $row  packed place and cells
     * @return array{part: int, line: int, cells: list<string>}
     */
    private static function row(array $row): array
    {
        $place = RecordPlace::ofPacked($row[0]);

        return ['part' => $place->part, 'line' => $place->line, 'cells' => array_map(DeliveryReader::shortened(...), $row[1])];
    }

    /**
     * @param  array{in: int, made: int, condensed: int, leftOut: int, out: int, altered: int, notes: array<string, int>,
     *     values: array<string, array<string, int>>}  $figures
     * @return array<string, mixed>
     */
    private function figures(array $figures, SideMask $mask): array
    {
        $notes = [];
        foreach ($figures['notes'] as $what => $count) {
            $values = $figures['values'][$what] ?? [];
            arsort($values);
            // What a note is about may have come from any column.
            $values = $mask->hidesAnything() ? [] : $values;
            $notes[] = [
                'what' => $what,
                'count' => $count,
                'values' => array_map(
                    static fn(int|string $value, int $times): array => ['value' => (string) $value, 'count' => $times],
                    array_keys(array_slice($values, 0, self::VALUES, true)),
                    array_slice($values, 0, self::VALUES, true),
                ),
            ];
        }

        return [
            'in' => $figures['in'],
            'made' => $figures['made'],
            'condensed' => $figures['condensed'],
            'leftOut' => $figures['leftOut'],
            'out' => $figures['out'],
            'altered' => $figures['altered'],
            'notes' => $notes,
        ];
    }
}
