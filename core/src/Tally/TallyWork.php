<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Intake\Delimited\StrayQuotes;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Matching\MatchCounts;
use NineTally\Core\Matching\Postings\PostingBuffer;
use NineTally\Core\Matching\Postings\Postings;
use NineTally\Core\Matching\ScanResult;
use NineTally\Core\Matching\Spill\FindingSpool;
use NineTally\Core\Matching\Spill\SpillReader;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Totals\DeliveredTotals;
use NineTally\Core\Totals\TotalReport;
use NineTally\Core\Value\Reading;

/**
 * The work of a tally in tasks: ranges of both sides to be read, then partitions to be matched.
 *
 * Each task is idempotent and leaves a file when it is done, so any worker can do any of them, again if need be, and they
 * may be divided among processes that share the workspace.
 */
final class TallyWork
{
    /** The task that reads both sides at once. */
    private const BOTH_SIDES = 'both-0';

    public readonly TallyParts $parts;

    private readonly TaskResults $results;

    private readonly WorkDivision $division;

    private ?SpillReader $pairs = null;

    /** @var Sides<SpillReader>|null */
    private ?Sides $spills = null;

    /** @param Sides<Reader> $readers */
    public function __construct(
        private readonly Plan $plan,
        private readonly Sides $readers,
        private readonly string $workspace,
        private readonly TallySettings $settings,
    ) {
        $this->parts = new TallyParts($plan, $readers, $settings);
        $this->results = new TaskResults($workspace);
        $this->division = new WorkDivision($readers, $this->parts, $workspace, $settings);
    }

    /** @return list<string> names of the tasks that read both sides */
    public function scanTasks(): array
    {
        if ($this->division->readsSideBySide()) {
            return [self::BOTH_SIDES];
        }
        $tasks = [];
        foreach (Side::cases() as $side) {
            foreach (array_keys($this->division->rangesOf($side)) as $number) {
                $tasks[] = "{$side->value}-{$number}";
            }
        }

        return $tasks;
    }

    private function scanBoth(callable $onProgress): ScanResult
    {
        $results = $this->parts
            ->sideBySideScan()
            ->run(
                ['source' => "{$this->workspace}/source-0", 'target' => "{$this->workspace}/target-0"],
                "{$this->workspace}/".self::BOTH_SIDES,
                $onProgress,
            );
        foreach ($results as $side => $result) {
            $this->results->keep("{$side}-0", $result);
        }

        return $results['source'];
    }

    /** @return list<string> names of the tasks that match; all of reading must be done */
    public function matchTasks(): array
    {
        return array_map(
            static fn(int $partition): string => "match-{$partition}",
            range(0, $this->parts->partitions - ($this->plan->bridges->confirmed === [] ? 1 : 0)),
        );
    }

    /** @param callable(int, int): void $onProgress while reading: bytes of this task, and records, so far */
    public function perform(string $task, callable $onProgress): void
    {
        if ($this->isDone($task)) {
            return;
        }
        [$kind, $number] = explode('-', $task);
        $result = match ($kind) {
            'match' => $this->match((int) $number, $task),
            'both' => $this->scanBoth($onProgress),
            default => $this->scan(Side::from($kind), (int) $number, $task, $onProgress),
        };
        $this->results->keep($task, $result);
    }

    public function isDone(string $task): bool
    {
        return $this->results->isDone($task);
    }

    /** @return string SHA-256 of the result of a task that is done; '' when it is not, or not any more */
    public function digestOf(string $task): string
    {
        return $this->results->digestOf($task);
    }

    /** So that it is done again: what it left is damaged. */
    public function forget(string $task): void
    {
        $this->results->forget($task);
    }

    /** @return int about how many bytes a task of reading has to read */
    public function bytesOf(string $task): int
    {
        [$kind, $number] = explode('-', $task);
        $side = Side::tryFrom($kind);
        if ($side === null) {
            return max($this->readers->source->bytes(), $this->readers->target->bytes());
        }
        $range = $this->division->rangesOf($side)[(int) $number];

        return max(1, ($range->end ?? $this->readers->of($side)->bytes()) - $range->start);
    }

    /**
     * Reads a side whose quotes turned out to be stray from its beginning, in one task.
     *
     * @return list<string> tasks that are still to be done
     */
    public function tasksAfterStrayQuotes(): array
    {
        $tasks = [];
        foreach (Side::cases() as $side) {
            foreach (array_keys($this->division->rangesOf($side)) as $number) {
                if ($this->results->ofScan("{$side->value}-{$number}")->hasStrayQuotes) {
                    file_put_contents("{$this->workspace}/{$side->value}.in-one", '');
                    array_map(unlink(...), glob("{$this->workspace}/{$side->value}-*") ?: []);
                    $tasks[] = "{$side->value}-0";
                    break;
                }
            }
        }

        return $tasks;
    }

    /** @return list<ScanResult> by range */
    public function scanResults(Side $side): array
    {
        return array_map(
            fn(int $number): ScanResult => $this->results->ofScan("{$side->value}-{$number}"),
            array_keys($this->division->rangesOf($side)),
        );
    }

    /** @return list<TotalReport> the control totals; all findings must have been merged */
    public function totals(MatchCounts $counts, ?DeliveredTotals $delivered = null): array
    {
        return $this->parts->totals->reports(Sides::each($this->scanResults(...)), $counts->shares, $this->workspace, $delivered);
    }

    public function matchCounts(): MatchCounts
    {
        $counts = new MatchCounts(count($this->plan->columnPairs));
        foreach ($this->matchTasks() as $task) {
            $counts->merge($this->results->ofMatch($task)['counts']);
        }

        return $counts;
    }

    /**
     * The findings of a side that were written aside, in its order.
     *
     * @param  int  $from  line of the first that is wanted
     * @param  int  $to  line of the first that is not wanted any more
     * @return \Generator<int, \NineTally\Core\Matching\Spill\FindingEntry> by the lines before the entry's own
     */
    public function entries(Side $side, int $from = 0, int $to = PHP_INT_MAX): \Generator
    {
        $streams = [];
        foreach ($this->rangesInOrder($side) as ['path' => $path, 'baseLine' => $baseLine, 'result' => $result]) {
            if ($result->hasFindings) {
                $streams[] = ['path' => $path.'.findings', 'baseLine' => $baseLine];
            }
        }
        foreach ($this->matchTasks() as $task) {
            if ($this->results->ofMatch($task)['findings'][$side->value]) {
                $streams[] = ['path' => "{$this->workspace}/{$task}.{$side->value}", 'baseLine' => 0];
            }
        }

        return FindingSpool::merged($streams, $from, $to);
    }

    private function scan(Side $side, int $number, string $task, callable $onProgress): ScanResult
    {
        $range = $this->division->rangesOf($side)[$number];
        try {
            return $this->parts
                ->scan($side)
                ->run($range, "{$this->workspace}/{$task}", static function (int $position, int $records) use ($onProgress, $range): void {
                    $onProgress($position - $range->start, $records);
                });
        } catch (StrayQuotes) {
            $result = new ScanResult;
            $result->hasStrayQuotes = true;

            return $result;
        }
    }

    /** In which rows forgiven cells stand, of all partitions; all of matching must be done. */
    public function postings(string $path): Postings
    {
        return Postings::merged(
            array_map(
                fn(string $task): array => [
                    'path' => "{$this->workspace}/{$task}.postings",
                    'index' => $this->results->ofMatch($task)['postings'],
                ],
                $this->matchTasks(),
            ),
            $path,
        );
    }

    /** What counts the values of rows that were not compared; all of reading must be done. */
    public function valueCounts(): ValueCounts
    {
        $blanks = ['source' => [], 'target' => []];
        foreach (Side::cases() as $side) {
            foreach ($this->scanResults($side) as $result) {
                foreach ($result->blanks as $pair => $cells) {
                    $blanks[$side->value][$pair] = ($blanks[$side->value][$pair] ?? 0) + $cells;
                }
            }
        }

        return $this->parts->valueCounts($blanks);
    }

    /**
     * @return array{counts: MatchCounts, findings: array{source: bool, target: bool}, postings: array<string, array<int, array{int, int}>>}
     */
    private function match(int $partition, string $task): array
    {
        $counts = new MatchCounts(count($this->plan->columnPairs));
        $postings = new PostingBuffer;
        $pairs = $this->division->readsSideBySide()
            ? ($this->pairs ??= new SpillReader([['path' => "{$this->workspace}/".self::BOTH_SIDES, 'baseLine' => 0]]))
            : null;
        $findings = $this->parts
            ->partitionMatch($this->spills ??= Sides::each($this->spill(...)), $pairs, $counts, $postings)
            ->run($partition, $partition === $this->parts->partitions, "{$this->workspace}/{$task}");

        return ['findings' => $findings, 'counts' => $counts, 'postings' => $postings->write("{$this->workspace}/{$task}.postings")];
    }

    private function spill(Side $side): SpillReader
    {
        return new SpillReader(
            array_map(
                static fn(array $range): array => ['path' => $range['path'], 'baseLine' => $range['baseLine']],
                $this->rangesInOrder($side),
            ),
        );
    }

    /** @return list<array{path: string, baseLine: int, result: ScanResult}> */
    private function rangesInOrder(Side $side): array
    {
        $lines = 0;
        $ranges = [];
        foreach ($this->scanResults($side) as $number => $result) {
            $ranges[] = ['path' => "{$this->workspace}/{$side->value}-{$number}", 'baseLine' => $lines, 'result' => $result];
            $lines += $result->lines;
        }

        return $ranges;
    }
}
