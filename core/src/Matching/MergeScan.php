<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Intake\ByteRange;
use NineTally\Core\Matching\Spill\SpillWriter;
use NineTally\Core\Row\RefusedRecord;

/**
 * Reads both sides at once, where they come in the same order or nearly: rows that are equal as bytes are put aside once, as
 * pairs, and all others as Scan would. 2.3 times as fast as reading one side after the other and matching (docs/performance.md).
 *
 * A pair is no agreed row yet: its key may stand on other rows too. PartitionMatch sees to that.
 */
final class MergeScan
{
    /** How far ahead a row's equal is looked for when one side has rows between that the other has not. */
    private const AHEAD = 64;

    /** Rows by which it is judged whether the sides come in the same order, and how many of them must pair. */
    private const SAMPLE_ROWS = 50_000;

    private const LEAST_SHARE = 0.95;

    /** Two lines share one number: each may be up to 2,147,483,647. Writing the second as text took as long as all the rest of a pair. */
    private const LINE_BITS = 31;

    /** @var array{source: list<string>, target: list<string>} */
    private array $rows = ['source' => [], 'target' => []];

    /** @var array{source: list<int>, target: list<int>} */
    private array $lines = ['source' => [], 'target' => []];

    /** @var array{source: list<RefusedRecord>, target: list<RefusedRecord>} */
    private array $refused = ['source' => [], 'target' => []];

    /** @var array{source: int, target: int} */
    private array $at = ['source' => 0, 'target' => 0];

    /** @param array{source: Scan, target: Scan} $scans of sides whose rows are kept whole and begin with their key */
    public function __construct(
        private readonly array $scans,
        private readonly int $keyColumns,
        private readonly int $partitions,
        private readonly int $bufferBytes,
    ) {}

    /** @return array{source: int, target: int} the lines that a pair's number holds */
    public static function linesOf(int $number): array
    {
        return ['source' => $number >> self::LINE_BITS, 'target' => $number & (1 << self::LINE_BITS) - 1];
    }

    /** Whether both sides come in the same order, as far as their beginnings tell. */
    public function isWorthwhile(): bool
    {
        $seen = $paired = 0;
        $keys = [];
        $ahead = ['source' => [], 'target' => []];
        $batches = array_map(static fn(Scan $scan): \Generator => $scan->rowsOnly(), $this->scans);
        while ($seen < self::SAMPLE_ROWS) {
            foreach ($batches as $side => $rows) {
                while (count($ahead[$side]) < 2 * self::AHEAD && $rows->valid()) {
                    array_push($ahead[$side], ...$rows->current());
                    $rows->next();
                }
            }
            $together = min(count($ahead['source']), count($ahead['target']));
            if ($together === 0) {
                break;
            }
            // Rows that pair nearby, wherever they stand in this stretch: a few missing ones shift all that follow.
            $paired += count(
                array_intersect_key(
                    array_flip(array_slice($ahead['source'], 0, $together)),
                    array_flip(array_slice($ahead['target'], 0, $together + self::AHEAD)),
                ),
            );
            $seen += $together;
            foreach (array_slice($ahead['source'], 0, $together) as $row) {
                $keys[
                    implode(Batch::CELL_END, array_slice(explode(Batch::CELL_END, $row, $this->keyColumns + 1), 0, $this->keyColumns))
                ] = true;
            }
            // Where hardly any row finds its equal there is no need to look on.
            if ($paired < $seen / 2) {
                return false;
            }
            $ahead = ['source' => array_slice($ahead['source'], $together), 'target' => array_slice($ahead['target'], $together)];
        }

        // Rows whose key stands on others have to be matched after all; many of them would be held at once.
        return $seen > 0 && $paired >= self::LEAST_SHARE * $seen && count($keys) >= self::LEAST_SHARE * $seen;
    }

    /**
     * @param  array{source: string, target: string}  $paths  of the spills of rows that did not pair
     * @param  string  $pairedPath  of the spill of those that did; its lines are those of both sides, see linesOf()
     * @param  callable(int, int): void  $onProgress
     * @return array{source: ScanResult, target: ScanResult}
     */
    public function run(array $paths, string $pairedPath, callable $onProgress): array
    {
        $pairs = new SpillWriter($pairedPath, $this->partitions + 1, $this->bufferBytes);
        $outputs = [
            'source' => $this->scans['source']->begin($paths['source']),
            'target' => $this->scans['target']->begin($paths['target']),
        ];
        $positions = ['source' => 0, 'target' => 0];
        $batches = [];
        foreach ($this->scans as $side => $scan) {
            $batches[$side] = $scan->batches(new ByteRange, $outputs[$side], static function (int $position) use (
                &$positions,
                $side,
                $outputs,
                $onProgress,
            ): void {
                $positions[$side] = $position;
                $onProgress(array_sum($positions), $outputs['source']->result->read + $outputs['target']->result->read);
            });
        }
        do {
            $sourceHasMore = $this->fill('source', $batches['source'], $outputs['source']);
            $targetHasMore = $this->fill('target', $batches['target'], $outputs['target']);
            $this->pair($pairs, $outputs, $sourceHasMore ? self::AHEAD : 0, $targetHasMore ? self::AHEAD : 0);
        } while ($sourceHasMore || $targetHasMore);
        foreach ($outputs as $side => $output) {
            $this->refuse($side, PHP_INT_MAX, $output);
        }
        $pairs->finish();

        return [
            'source' => $this->scans['source']->finish($outputs['source'], $batches['source']->getReturn()),
            'target' => $this->scans['target']->finish($outputs['target'], $batches['target']->getReturn()),
        ];
    }

    /**
     * @param  'source'|'target'  $side
     * @param  \Generator<int, Batch|RefusedRecord, mixed, int>  $batches
     * @return bool whether there may be more
     */
    private function fill(string $side, \Generator $batches, ScanOutput $output): bool
    {
        $this->rows[$side] = array_slice($this->rows[$side], $this->at[$side]);
        $this->lines[$side] = array_slice($this->lines[$side], $this->at[$side]);
        $this->at[$side] = 0;
        while ($batches->valid() && count($this->rows[$side]) <= 2 * self::AHEAD) {
            $batch = $batches->current();
            if ($batch instanceof RefusedRecord) {
                $this->refused[$side][] = $batch;
            } else {
                $line = $batch->firstLine;
                foreach (explode(Batch::ROW_END, $batch->rows) as $row) {
                    $this->rows[$side][] = $row;
                    $this->lines[$side][] = $line;
                    $line += $batch->linesOf($row);
                }
            }
            $batches->next();
        }

        return $batches->valid();
    }

    /**
     * @param  array{source: ScanOutput, target: ScanOutput}  $outputs
     * @param  int  $sourceKept  rows at the end that wait, for their equal may come with the next block; 0 when there is none
     */
    private function pair(SpillWriter $pairs, array $outputs, int $sourceKept, int $targetKept): void
    {
        ['source' => $source, 'target' => $target] = $this->rows;
        ['source' => $sourceLines, 'target' => $targetLines] = $this->lines;
        $i = $j = $bytes = $rows = 0;
        [$sourceEnd, $targetEnd] = [count($source) - $sourceKept, count($target) - $targetKept];
        $mask = $this->partitions - 1;
        $blankKey = str_repeat(Batch::CELL_END, $this->keyColumns);
        while ($i < $sourceEnd && $j < $targetEnd) {
            $row = $source[$i];
            if ($row !== $target[$j] || str_starts_with($row, $blankKey) || $this->keyColumns === 1 && $row[0] === Batch::CELL_END) {
                [$i, $j] = $this->passOver($source, $target, $i, $j, $outputs);

                continue;
            }
            $end = strpos($row, Batch::CELL_END);
            for ($column = 1; $column < $this->keyColumns && $end !== false; $column++) {
                $end = strpos($row, Batch::CELL_END, $end + 1);
            }
            $key = $end === false ? $row : substr($row, 0, $end);
            $partition = crc32($key) & $mask;
            $pairs->keys[$partition] .= $key.Batch::ROW_END;
            $pairs->bodies[$partition] .= $row.Batch::ROW_END;
            $pairs->lines[$partition][] = $sourceLines[$i] << self::LINE_BITS | $targetLines[$j];
            $bytes += strlen($row) + 60;
            $rows++;
            if (
                $this->keyColumns > 1 &&
                ($key[0] === Batch::CELL_END || $key[-1] === Batch::CELL_END || str_contains($key, Batch::CELL_END.Batch::CELL_END))
            ) {
                $outputs['source']->result->partlyBlank++;
                $outputs['target']->result->partlyBlank++;
            }
            $i++;
            $j++;
        }
        $outputs['source']->result->read += $rows;
        $outputs['target']->result->read += $rows;
        $pairs->grownBy($bytes);
        // When one side is at its end, nothing of the other can pair any more.
        if ($targetKept === 0 && $j === count($target)) {
            $i = $this->putAside('source', $i, count($source), $outputs['source']);
        }
        if ($sourceKept === 0 && $i === count($source)) {
            $j = $this->putAside('target', $j, count($target), $outputs['target']);
        }
        $this->at = ['source' => $i, 'target' => $j];
    }

    /**
     * Two rows that are not equal: rows that only one side has are put aside until the sides meet again, else both are.
     *
     * @param  list<string>  $source
     * @param  list<string>  $target
     * @param  array{source: ScanOutput, target: ScanOutput}  $outputs
     * @return array{int, int} where it goes on; by value, for references would slow every row down
     */
    private function passOver(array $source, array $target, int $i, int $j, array $outputs): array
    {
        for ($ahead = 1; $ahead < self::AHEAD; $ahead++) {
            if (($target[$j + $ahead] ?? null) === $source[$i]) {
                return [$i, $this->putAside('target', $j, $j + $ahead, $outputs['target'])];
            }
            if (($source[$i + $ahead] ?? null) === $target[$j]) {
                return [$this->putAside('source', $i, $i + $ahead, $outputs['source']), $j];
            }
        }

        return [$this->putAside('source', $i, $i + 1, $outputs['source']), $this->putAside('target', $j, $j + 1, $outputs['target'])];
    }

    /**
     * Refused records are read ahead of the rows before them, and are written down when those have been.
     *
     * @param  'source'|'target'  $side
     */
    private function refuse(string $side, int $beforeLine, ScanOutput $output): void
    {
        while ($this->refused[$side] !== [] && $this->refused[$side][0]->line < $beforeLine) {
            $this->scans[$side]->take(array_shift($this->refused[$side]), $output);
        }
    }

    /** @param 'source'|'target' $side */
    private function putAside(string $side, int $from, int $to, ScanOutput $output): int
    {
        for ($place = $from; $place < $to; $place++) {
            $this->refuse($side, $this->lines[$side][$place], $output);
            $this->scans[$side]->take(new Batch($this->rows[$side][$place], $this->lines[$side][$place]), $output);
        }

        return $to;
    }
}
