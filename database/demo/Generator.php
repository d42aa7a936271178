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
        [$source, $target] = $this->rows();
        $sourceLines = $this->lines(
            array_keys($this->dataset->columns->names),
            $source,
            $this->dataset->faults->refusedInSource,
            $this->dataset->files->sourceDelimiter,
        );
        $targetLines = $this->lines(
            $this->columnsOfTarget(),
            $this->random->shuffleArray($target),
            $this->dataset->faults->refusedInTarget,
            $this->dataset->files->targetDelimiter,
        );
        $paths = [
            'source' => "{$folder}/{$this->dataset->name}_old.csv",
            'target' => "{$folder}/{$this->dataset->name}_new.csv",
            'truth' => "{$folder}/{$this->dataset->name}_truth.json",
        ];
        file_put_contents(
            $paths['source'],
            $this->file(
                array_keys($this->dataset->columns->names),
                $sourceLines,
                $this->dataset->files->sourceDelimiter,
                $this->dataset->files->sourceLineEnd,
            ),
        );
        file_put_contents(
            $paths['target'],
            $this->dataset->files->targetBeginning.
                $this->file(
                    array_map(fn(string $name): string => $this->dataset->columns->names[$name] ?? $name, $this->columnsOfTarget()),
                    $targetLines,
                    $this->dataset->files->targetDelimiter,
                    "\n",
                ),
        );
        file_put_contents($paths['truth'], json_encode($this->truth, JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR));

        return $paths;
    }

    /**
     * Divides the file of the source among the offices that handed it over, each with a last record that says how many rows it has and
     * what a column of them adds up to.
     *
     * @return list<string> paths of the parts
     */
    public function divide(string $path): array
    {
        $end = $this->dataset->files->sourceLineEnd;
        $lines = explode($end, rtrim((string) file_get_contents($path), $end));
        $header = array_shift($lines);
        $place = (int) array_search($this->dataset->files->totalled, explode($this->dataset->files->sourceDelimiter, $header), true);
        $paths = [];
        foreach (array_chunk($lines, max(1, (int) ceil(count($lines) / count($this->dataset->files->parts)))) as $nth => $some) {
            $total = array_sum(
                array_map(
                    fn(string $line): int => (int) str_replace('.', '', explode($this->dataset->files->sourceDelimiter, $line)[$place]),
                    $some,
                ),
            );
            $trailer = implode($this->dataset->files->sourceDelimiter, [
                'TRL',
                (string) count($some),
                sprintf('%d.%02d', intdiv($total, 100), $total % 100),
            ]);
            $paths[] = $part = dirname($path).'/'.array_keys($this->dataset->files->parts)[$nth];
            file_put_contents($part, implode($end, [$header, ...$some, $trailer]).$end);
        }

        return $paths;
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
     * @param  list<string>  $names  by which the cells are found in a row
     * @param  list<array<string, string>>  $rows
     * @param  list<string>  $refused
     * @return list<string>
     */
    private function lines(array $names, array $rows, array $refused, string $delimiter): array
    {
        $lines = array_map(
            fn(array $row): string => $this->line(array_map(static fn(string $name): string => $row[$name] ?? '', $names), $delimiter),
            $rows,
        );
        foreach ($refused as $nth => $record) {
            array_splice($lines, (int) (count($lines) * ($nth + 1) / (count($refused) + 1)), 0, [$record]);
        }

        return $lines;
    }

    /** @return list<string> source names of the columns that the target has too, then its own */
    private function columnsOfTarget(): array
    {
        return [
            ...array_keys(array_filter($this->dataset->columns->names, static fn(string $name): bool => $name !== '')),
            ...$this->dataset->columns->targetOnly,
        ];
    }

    /**
     * @param  list<string>  $header
     * @param  list<string>  $lines
     */
    private function file(array $header, array $lines, string $delimiter, string $lineEnd): string
    {
        return implode($lineEnd, [$this->line($header, $delimiter), ...$lines]).$lineEnd;
    }

    /** @param list<string> $cells */
    private function line(array $cells, string $delimiter): string
    {
        return implode(
            $delimiter,
            array_map(
                static fn(string $cell): string => strpbrk($cell, $delimiter."\"\r\n") === false
                    ? $cell
                    : '"'.str_replace('"', '""', $cell).'"',
                $cells,
            ),
        );
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
