<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Models\Tally;
use NineTally\Core\Advice\CorrectValue;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Row\Side;

/**
 * What has to be done in the target for each finding that is a defect: a row to add, a row to take out, a cell to set, under the target's
 * own names
 * and in the forms that it declares. What cannot be said for certain says why.
 */
final readonly class CorrectionLines
{
    public function __construct(private FindingsOfAct $findings, private Masks $masks) {}

    /**
     * @param  list<int>  $acts
     * @return \Generator<int, array<string, string|int|null>> by the columns of the table of lines, the identity in hexadecimal digits
     */
    public function of(Tally $tally, array $acts): \Generator
    {
        $layout = TallyColumns::ofTally($tally);
        $values = array_map(
            static fn(ColumnPair $pair): CorrectValue => new CorrectValue(
                $pair,
                $layout->plan->source->reading($pair->source, $pair->kind),
                $layout->plan->target->reading($pair->target, $pair->kind),
            ),
            $layout->plan->columnPairs,
        );
        foreach ($acts as $act) {
            // Corrections are made by whoever may see the values; who may take them away is asked when they are.
            foreach ($this->findings->of($tally, $act, $this->masks->none()) as $identity => $finding) {
                yield [
                    'ruling_id' => $act,
                    'identity' => $identity,
                    ...$finding instanceof RulableCell
                        ? $this->cell($finding, $layout, $values)
                        : $this->row($finding->finding, $layout, $values),
                ];
            }
        }
    }

    /**
     * @param  list<CorrectValue>  $values  by column pair
     * @return array<string, string|null>
     */
    private function cell(RulableCell $cell, TallyColumns $layout, array $values): array
    {
        $pair = $layout->plan->columnPairs[$cell->finding->pairPosition];
        $must = $values[$cell->finding->pairPosition]->of($cell->finding->source);

        return [
            'action' => 'set',
            'source_key' => (string) $cell->key?->asCsv(),
            'key' => $this->json($this->targetKey($cell->key->cells ?? [], $layout)),
            'pair_id' => $pair->id,
            'column' => $pair->target,
            'stands' => $cell->finding->target,
            'must' => $must,
            'row' => null,
            'uncertain' => implode('; ', [
                ...$must === null ? ['the form of the target for this value is not known: the source has it as it stands'] : [],
                ...$this->prepared($layout),
            ]),
        ];
    }

    /**
     * @param  list<CorrectValue>  $values  by column pair
     * @return array<string, string|null>
     */
    private function row(RowFinding $row, TallyColumns $layout, array $values): array
    {
        $key = $row->deliveredKey->cells ?? [];
        $isAdded = $row->class === RowClass::Missing;
        $whole = $isAdded ? $this->wholeRow($row, $layout, $values) : ['row' => null, 'uncertain' => []];

        return [
            'action' => $isAdded ? 'add' : 'take-out',
            'source_key' => (string) $row->deliveredKey?->asCsv(),
            'key' => $this->json($this->targetKey($key, $layout)),
            'pair_id' => null,
            'column' => null,
            'stands' => null,
            'must' => null,
            'row' => $whole['row'] === null ? null : $this->json($whole['row']),
            'uncertain' => implode('; ', [
                ...match (true) {
                    $isAdded, $row->class === RowClass::Extra => [],
                    $row->class === RowClass::Repeated => ['which of the rows that share the key has to go cannot be told from the rows'],
                    $row->side === Side::Source => ['the row of the source itself has to be put right: '.$row->class->sentence()],
                    default => [$row->class->sentence()],
                },
                ...$whole['uncertain'],
                ...$this->prepared($layout),
            ]),
        ];
    }

    /**
     * @param  list<CorrectValue>  $values
     * @return array{row: array<string, string>, uncertain: list<string>}
     */
    private function wholeRow(RowFinding $row, TallyColumns $layout, array $values): array
    {
        $cells = $row->source->cells ?? [];
        $byName = array_combine(array_reverse($layout->sourceColumns), array_reverse(array_pad($cells, count($layout->sourceColumns), '')));
        $whole = $this->targetKey($row->deliveredKey->cells ?? [], $layout);
        $unsure = [];
        foreach ($layout->plan->columnPairs as $position => $pair) {
            $must = $values[$position]->of($byName[$pair->source] ?? '');
            $whole[$pair->target] = $must ?? $byName[$pair->source] ?? '';
            $unsure = $must === null ? [...$unsure, $pair->target] : $unsure;
        }
        $unknown = array_values(array_diff($layout->targetColumns, array_keys($whole)));

        return [
            'row' => $whole,
            'uncertain' => [
                ...$unsure === [] ? [] : ['the form of the target is not known for '.implode(', ', $unsure)],
                ...$unknown === [] ? [] : ['nothing is known for '.implode(', ', $unknown)],
            ],
        ];
    }

    /**
     * @param  list<string>  $cells
     * @return array<string, string> under the names of the target
     */
    private function targetKey(array $cells, TallyColumns $layout): array
    {
        $names = array_map(static fn(KeyColumn $column): string => $column->target, $layout->plan->key);

        return array_combine($names, array_slice(array_pad($cells, count($names), ''), 0, count($names)));
    }

    /** @return list<string> */
    private function prepared(TallyColumns $layout): array
    {
        return $layout->plan->target->preparation->working() === []
            ? []
            : ['names and values are those of the target after its steps'];
    }

    /** @param array<string, string> $members */
    private function json(array $members): string
    {
        return json_encode(
            (object) $members,
            JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_INVALID_UTF8_SUBSTITUTE,
        );
    }
}
