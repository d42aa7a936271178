<?php

declare(strict_types=1);

namespace Database\Demo;

use Random\Engine\Mt19937;
use Random\Randomizer;

/**
 * Writes both sides of a dataset and, beside them, what is true about them. The same seed gives the same bytes.
 *
 * The truth comes from what was planted, never from a run of the engine.
 */
final class Generator
{
    private readonly Randomizer $random;

    /**
     * @var array{rows: array{source: array<string, int>, target: array<string, int>}, cells: list<array{key: list<string>, column: string,
     *     class: string, cause: string}>, sums: array<string, array<string, array<string, int>>>,
     *     records: array<string, array{values: int, rows: int}>} sums in pence by column, group and side; what has no record, by kind
     */
    private array $truth;

    private int $changedRows = 0;

    public function __construct(private readonly DemoDataset $dataset, int $seed)
    {
        $this->random = new Randomizer(new Mt19937($seed));
        $this->truth = ['rows' => ['source' => [], 'target' => []], 'cells' => [], 'sums' => [], 'records' => []];
    }

    /** @return array{source: string, target: string, truth: string} paths */
    public function write(string $folder): array
    {
        $sides = $this->sides();
        $files = $this->dataset->files;
        $path = "{$folder}/{$this->dataset->name}";
        $faults = $this->dataset->faults;
        (new DemoWriter($files->sourceDelimiter, $files->sourceLineEnd))->write(
            "{$path}_old.csv",
            $sides['source'],
            $faults->refusedInSource,
        );
        (new DemoWriter($files->targetDelimiter, "\n", $files->targetBeginning))->write(
            "{$path}_new.csv",
            $sides['target'],
            $faults->refusedInTarget,
        );
        file_put_contents(
            "{$path}_truth.json",
            json_encode($this->truth, JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR),
        );

        return ['source' => "{$path}_old.csv", 'target' => "{$path}_new.csv", 'truth' => "{$path}_truth.json"];
    }

    /** @return array{source: DemoRows, target: DemoRows} each in its own order, by its own names */
    public function sides(): array
    {
        [$source, $target] = $this->rows();
        $names = array_keys($this->dataset->columns->names);

        return [
            'source' => DemoRows::named(array_combine($names, $names), $source),
            'target' => DemoRows::named($this->dataset->columns->ofTarget(), $this->random->shuffleArray($target)),
        ];
    }

    /** @return array{list<array<string, string>>, list<array<string, string>>} rows of both sides, by source name */
    private function rows(): array
    {
        $source = $target = [];
        for ($number = 0; $number < $this->dataset->rows; $number++) {
            $source[$number] = $target[$number] = ($this->dataset->row)($number);
            foreach ($this->dataset->rules->codes as $column => $codes) {
                $target[$number][$column] = $codes[$source[$number][$column]];
            }
        }
        // Every planted row and cell takes a row of its own, so that each has one truth.
        $free = $this->random->shuffleArray(array_keys($source));
        foreach ($this->dataset->faults->cells as $planted) {
            $this->plantCells($planted, $free, $source, $target);
        }
        $this->plantRows($free, $source, $target);
        $this->countRows(count($source), count($target));
        $this->truth = [...$this->truth, ...DemoSums::truth($this->dataset->rules, ['source' => $source, 'target' => $target])];

        return array_map(array_values(...), [$source, $target]);
    }

    /**
     * @param  list<int>  $free
     * @param  array<int, array<string, string>>  $source
     * @param  array<int, array<string, string>>  $target
     */
    private function plantCells(Planted $planted, array &$free, array &$source, array &$target): void
    {
        for ($nth = 0; $nth < $planted->count; $nth++) {
            $row = array_pop($free) ?? throw new \LogicException('More was planted than there are rows.');
            [$source[$row][$planted->column], $target[$row][$planted->column]] = ($planted->alter)($source[$row][$planted->column], $nth);
            if ($planted->swappedWith !== null) {
                [$target[$row][$planted->column], $target[$row][$planted->swappedWith]] = [
                    $source[$row][$planted->swappedWith],
                    $source[$row][$planted->column],
                ];
                $this->truth['cells'][] = [
                    'key' => $this->keyOf($source[$row]),
                    'column' => $planted->swappedWith,
                    'class' => $planted->class,
                    'cause' => $planted->cause,
                ];
            }
            $this->changedRows++;
            $this->truth['cells'][] = [
                'key' => $this->keyOf($source[$row]),
                'column' => $planted->column,
                'class' => $planted->class,
                'cause' => $planted->cause,
            ];
        }
    }

    /**
     * @param  list<int>  $free
     * @param  array<int, array<string, string>>  $source
     * @param  array<int, array<string, string>>  $target
     */
    private function plantRows(array &$free, array &$source, array &$target): void
    {
        $planted = $this->dataset->faults->rows;
        foreach (array_splice($free, 0, $planted['missing']) as $row) {
            unset($target[$row]);
        }
        foreach (array_splice($free, 0, $planted['extra']) as $row) {
            unset($source[$row]);
        }
        foreach (array_splice($free, 0, $planted['repeatedInSource']) as $row) {
            $source[] = $source[$row];
        }
        foreach (array_splice($free, 0, $planted['repeatedInTarget']) as $row) {
            $target[] = $target[$row];
        }
        foreach (array_splice($free, 0, $planted['repeatedInBoth']) as $row) {
            $source[] = $source[$row];
            $target[] = $target[$row];
        }
        foreach (array_splice($free, 0, $planted['repeatedInSourceOnly']) as $row) {
            $source[] = $source[$row];
            unset($target[$row]);
        }
        $blankKey = array_fill_keys($this->dataset->columns->key, '');
        foreach (array_splice($free, 0, $planted['unkeyedInSource']) as $row) {
            $source[] = [...$source[$row], ...$blankKey];
        }
        foreach (array_splice($free, 0, $planted['unkeyedInTarget']) as $row) {
            $target[] = [...$target[$row], ...$blankKey];
        }
    }

    private function countRows(int $source, int $target): void
    {
        $planted = $this->dataset->faults->rows;
        $changed = $this->changedRows;
        $repeatedSource =
            2 * ($planted['repeatedInSource'] + $planted['repeatedInBoth'] + $planted['repeatedInSourceOnly']) +
            $planted['repeatedInTarget'];
        $repeatedTarget = 2 * ($planted['repeatedInTarget'] + $planted['repeatedInBoth']) + $planted['repeatedInSource'];
        $agreed =
            $this->dataset->rows -
            $changed -
            $planted['missing'] -
            $planted['extra'] -
            $planted['repeatedInSource'] -
            $planted['repeatedInTarget'] -
            $planted['repeatedInBoth'] -
            $planted['repeatedInSourceOnly'];
        $this->truth['rows'] = [
            'source' => [
                'delivered' => $source,
                'refused' => count($this->dataset->faults->refusedInSource),
                'agreed' => $agreed,
                'changed' => $changed,
                'missing' => $planted['missing'],
                'repeated' => $repeatedSource,
                'unkeyed' => $planted['unkeyedInSource'],
            ],
            'target' => [
                'delivered' => $target,
                'refused' => count($this->dataset->faults->refusedInTarget),
                'agreed' => $agreed,
                'changed' => $changed,
                'extra' => $planted['extra'],
                'repeated' => $repeatedTarget,
                'unkeyed' => $planted['unkeyedInTarget'],
            ],
        ];
    }

    /**
     * @param  array<string, string>  $row
     * @return list<string>
     */
    private function keyOf(array $row): array
    {
        return array_map(static fn(string $name): string => $row[$name], $this->dataset->columns->key);
    }
}
