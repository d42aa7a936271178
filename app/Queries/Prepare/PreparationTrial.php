<?php

declare(strict_types=1);

namespace App\Queries\Prepare;

use App\Adapters\Deliveries\DeliveryReader;
use App\Adapters\Deliveries\DeliverySample;
use App\Adapters\Deliveries\PreparationInputs;
use App\Adapters\Deliveries\PreparedSides;
use App\Models\Delivery;
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
    private const EXAMPLES = 20;

    /** Values that a note is about, most frequent first. */
    private const VALUES = 20;

    public function __construct(private DeliverySample $sample, private PreparedSides $sides) {}

    /**
     * @param  string|null  $chosen  the step whose rows are looked at
     * @return array<string, mixed>
     */
    public function __invoke(Delivery $delivery, SideRules $rules, PreparationInputs $inputs, ?string $chosen): array
    {
        ['columns' => $columns, 'rows' => $sample] = $this->sample->of($delivery);
        $workspace = Workspace::make();
        try {
            [$steps, $rows, $examples] = $this->tried($rules->preparation, $columns, $sample, $inputs, $chosen, $workspace->path);
        } finally {
            $workspace->remove();
        }
        $whole = $this->sides->of($delivery, $rules, $inputs);
        $isWhole = $this->sample->isWhole($delivery);
        if (! $isWhole && $whole->isWhole()) {
            $isWhole = true;
            $ledger = $whole->ledger();
            $figures = array_column($ledger->steps, 'figures', 'id');
            $steps = array_map(
                fn(array $step): array => isset($figures[$step['id']])
                    ? [...$step, 'figures' => $this->figures($figures[$step['id']])]
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
            'readyColumns' => $steps === [] ? $columns : $steps[count($steps) - 1]['columns'],
            'examples' => $examples,
        ];
    }

    /**
     * @param  list<string>  $columns
     * @param  list<array{int, list<string>}>  $sample
     * @return array{list<array{id: string, kind: string, isOff: bool, sentence: string, problem: string|null, columns: list<string>,
     *     figures: array<string, mixed>|null}>, int, array<string, mixed>|null}
     */
    private function tried(
        Preparation $preparation,
        array $columns,
        array $sample,
        PreparationInputs $inputs,
        ?string $chosen,
        string $folder,
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
                    foreach (
                        $step->run(
                            self::stream($rows),
                            $columns,
                            (new StepContext($counted, $folder, $references, $inputs->parameters))->under(
                                $preparation->formsInto($position + 1),
                            ),
                        )
                        as $packedPlace => $cells
                    ) {
                        $after[] = [$packedPlace, $cells];
                    }
                    $columnsAfter = $step->columns($columns);
                    $examples = $document['id'] === $chosen ? $this->examples($columns, $rows, $columnsAfter, $after) : $examples;
                    [$columns, $rows, $figures] = [$columnsAfter, $after, $this->figures($counted->toArray())];
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

        return [$steps, count($rows), $examples];
    }

    /**
     * @param  list<array{int, list<string>}>  $rows
     * @return \Generator<int, list<string>>
     */
    private static function stream(array $rows): \Generator
    {
        foreach ($rows as [$packedPlace, $cells]) {
            yield $packedPlace => $cells;
        }
    }

    /**
     * Rows that the step changes first.
     *
     * @param  list<string>  $columnsBefore
     * @param  list<array{int, list<string>}>  $before
     * @param  list<string>  $columnsAfter
     * @param  list<array{int, list<string>}>  $after
     * @return array<string, mixed>
     */
    private function examples(array $columnsBefore, array $before, array $columnsAfter, array $after): array
    {
        $made = [];
        foreach ($after as [$packedPlace, $cells]) {
            $made[$packedPlace][] = $cells;
        }
        $changed = $same = $seen = [];
        foreach ($before as [$packedPlace, $cells]) {
            if (isset($seen[$packedPlace])) {
                continue;
            }
            $seen[$packedPlace] = true;
            $became = $made[$packedPlace] ?? [];
            if ($became === [$cells]) {
                $same[] = [$packedPlace, $cells, $became];
            } else {
                $changed[] = [$packedPlace, $cells, $became];
            }
            if (count($changed) === self::EXAMPLES) {
                break;
            }
        }
        $rows = array_slice([...$changed, ...$same], 0, self::EXAMPLES);

        return [
            'columnsBefore' => $columnsBefore,
            'columnsAfter' => $columnsAfter,
            'rows' => array_map(static function (array $row): array {
                [$packedPlace, $cells, $became] = $row;
                $place = RecordPlace::ofPacked($packedPlace);

                return [
                    'part' => $place->part,
                    'line' => $place->line,
                    'before' => array_map(DeliveryReader::shortened(...), $cells),
                    'after' => array_map(
                        static fn(array $after): array => array_map(DeliveryReader::shortened(...), $after),
                        array_slice($became, 0, self::EXAMPLES),
                    ),
                ];
            }, $rows),
        ];
    }

    /**
     * @param  array{in: int, made: int, condensed: int, leftOut: int, out: int, altered: int, notes: array<string, int>,
     *     values: array<string, array<string, int>>}  $figures
     * @return array<string, mixed>
     */
    private function figures(array $figures): array
    {
        $notes = [];
        foreach ($figures['notes'] as $what => $count) {
            $values = $figures['values'][$what] ?? [];
            arsort($values);
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
