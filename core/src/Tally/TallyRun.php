<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Figures\UnbalancedTally;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Intake\UnreadableFile;
use NineTally\Core\Matching\ScanResult;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\UnusablePlan;
use NineTally\Core\Preparation\PreparationLedger;
use NineTally\Core\Preparation\PreparedReader;
use NineTally\Core\Records\NoRecords;
use NineTally\Core\Records\RecordCheck;
use NineTally\Core\Records\RecordReport;
use NineTally\Core\Records\RecordSource;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Totals\DeliveredSource;
use NineTally\Core\Totals\DeliveredTotals;
use NineTally\Core\Totals\TotalShares;

/**
 * One run of a plan on two deliveries: both sides are read into partitions by key, each partition is matched, the causes of
 * whole columns are decided, and the findings are merged into source order. Memory is bounded by the settings, whatever the
 * size of the deliveries; partitions and workers change nothing in what is found.
 */
final class TallyRun
{
    private const SHARE_READING = 0.55;

    private const SHARE_MATCHING = 0.35;

    /** Of the whole work, from 0 to 1: what is done when all tasks are. */
    public const SHARE_OF_TASKS = self::SHARE_READING + self::SHARE_MATCHING;

    /** Findings between two reports of progress. */
    private const FINDINGS_A_REPORT = 1_000;

    private readonly TallyWork $work;

    /** @var array<string, array{bytes: int, records: int}> by task */
    private array $readOf = [];

    private int $partitionsMatched = 0;

    private float $done = 0.0;

    private readonly string $workspace;

    /** @var array{source: int, target: int}|null what was read, once all is read */
    private ?array $records = null;

    /**
     * @param  Sides<Reader>  $readers
     * @param  string  $workspace  a folder of the run's own; tasks that stand there already are not done again
     *
     * @throws UnusablePlan
     */
    public function __construct(
        private readonly Plan $plan,
        private readonly Sides $readers,
        string $workspace,
        private readonly Progress $progress = new SilentProgress,
        private readonly TallySettings $settings = new TallySettings,
        private readonly TaskExecutor $executor = new SequentialExecutor,
        private readonly RecordSource $recordSource = new NoRecords,
        private readonly ?DeliveredSource $delivered = null,
    ) {
        $this->workspace = $workspace;
        $this->work = new TallyWork($plan, $readers, $workspace, $settings);
    }

    /**
     * Findings of the source first, in the order of its delivery, then those that only the target has, in the order of its own.
     *
     * @return \Generator<int, RowFinding, mixed, Summary> the Summary when all have been taken
     *
     * @throws UnreadableFile
     * @throws TallyCancelled
     * @throws UnbalancedTally before the first finding, if the sums do not add up
     */
    public function findings(): \Generator
    {
        $this->read($this->work->scanTasks());
        $this->read($this->work->tasksAfterStrayQuotes());
        $this->records = ['source' => $this->recordsOf(Side::Source), 'target' => $this->recordsOf(Side::Target)];
        $this->match();
        $counts = $this->work->matchCounts();
        $parts = $this->work->parts;
        [$source, $target] = array_map(
            fn(Side $side): SideCounts => SideCounts::from(
                $side,
                $this->work->scanResults($side),
                $counts,
                $this->ledgerOf($this->readers->of($side)),
            ),
            Side::cases(),
        );
        (new Balance($source, $target))->mustHold();

        $assembler = new FindingAssembler(
            $this->plan,
            $this->readers,
            $this->work->parts->comparisons(),
            $this->work->parts->catalogue,
            $counts,
            $this->work->valueCounts(),
            $this->leftOutKeys(),
            $this->settings->listsForgiven,
        );
        yield from $this->merge($source, $target, $assembler, $parts->totals->shares($counts->shares, $parts->comparisons()));

        return new Summary(
            $source,
            $target,
            $assembler->columns(),
            $assembler->patterns(),
            new KeyFigures(
                KeyForgiven::of($this->plan, $counts),
                $counts->bridged,
                array_map(fn(int $number) => $this->plan->bridges->confirmed[$number], $counts->idleBridges),
                $counts->undecided(),
                ChoiceFigures::of($this->plan, $counts, $parts->catalogue->forms),
            ),
            PreparationFigures::of($this->readers->map($this->ledgerOf(...))),
            new ColumnReports(
                ValuesWithoutEntry::of($this->plan, $counts),
                $this->work->totals($counts, $this->deliveredTotals()),
                $this->recordReports(),
            ),
            $assembler->slices,
        );
    }

    private function deliveredTotals(): ?DeliveredTotals
    {
        return $this->delivered === null ? null : new DeliveredTotals(
            $this->plan,
            $this->readers,
            $this->delivered,
            $this->work->parts->catalogue->forms,
            $this->workspace,
            fn() => $this->report(Phase::Merging, $this->done),
        );
    }

    /** @return list<RecordReport> */
    private function recordReports(): array
    {
        return (new RecordCheck(
            $this->plan,
            $this->readers,
            $this->recordSource,
            $this->work->parts->catalogue->forms,
            $this->workspace,
            fn() => $this->report(Phase::Merging, $this->done),
        ))->reports();
    }

    /**
     * In which rows each pattern of forgiven cells stands, of the key too; when all findings have been taken.
     *
     * @param  string  $path  of the file that holds the lists
     */
    public function forgivenPostings(string $path): ForgivenPostings
    {
        return ForgivenPostings::of($this->plan, $this->work->postings($path));
    }

    /** @return array<string, LeftOutKeys> by side, where steps have run */
    private function leftOutKeys(): array
    {
        $keys = [];
        foreach (Side::cases() as $side) {
            $reader = $this->readers->of($side);
            if ($reader instanceof PreparedReader && $reader->ledger->leftOut() > 0) {
                $keys[$side->value] = new LeftOutKeys($reader, $this->plan->keyNames($side), $this->work->parts->keyForm($side));
            }
        }

        return $keys;
    }

    /** What steps did to the rows before they came here; null where there were none. */
    private function ledgerOf(Reader $reader): ?PreparationLedger
    {
        return $reader instanceof PreparedReader ? $reader->ledger : null;
    }

    /** @param list<string> $tasks */
    private function read(array $tasks): void
    {
        $this->executor->perform(
            $this->work,
            $tasks,
            function (string $task, int $bytes, int $records): void {
                $this->readOf[$task] = ['bytes' => $bytes, 'records' => $records];
                $share =
                    array_sum(array_column($this->readOf, 'bytes')) /
                    max(1, $this->readers->source->bytes() + $this->readers->target->bytes());
                $this->report(Phase::Reading, self::SHARE_READING * min(1.0, $share));
            },
            static fn(string $task) => null,
        );
    }

    private function match(): void
    {
        $this->report(Phase::Matching, self::SHARE_READING);
        $this->executor->perform(
            $this->work,
            $this->work->matchTasks(),
            static fn(string $task, int $bytes, int $records) => null,
            function (): void {
                $this->partitionsMatched++;
                $this->report(
                    Phase::Matching,
                    self::SHARE_READING + (self::SHARE_MATCHING * $this->partitionsMatched) / count($this->work->matchTasks()),
                );
            },
        );
    }

    /** @return \Generator<int, RowFinding> */
    private function merge(SideCounts $source, SideCounts $target, FindingAssembler $assembler, ?TotalShares $shares): \Generator
    {
        $expected = $source->refused + $source->unkeyed + $source->repeated + $source->changed + $source->unmatched
            + $target->refused + $target->unkeyed + $target->repeated + $target->unmatched;
        $sequence = $passed = 0;
        foreach (Side::cases() as $side) {
            foreach ($this->work->entries($side) as $linesBefore => $entry) {
                $isFinding = $entry->class !== RowClass::Agreed;
                $finding = $assembler->assemble($entry, $linesBefore, $isFinding ? ++$sequence : 0);
                $shares?->see($finding);
                yield $finding;
                if (++$passed % self::FINDINGS_A_REPORT === 0) {
                    $this->report(Phase::Merging, $this->mergedShare($sequence, $expected));
                }
            }
        }
        if ($sequence !== $expected) {
            throw UnbalancedTally::inEquation('findings merged = findings counted', $sequence, $expected);
        }
        $this->report(Phase::Merging, 1.0);
    }

    private function mergedShare(int $sequence, int $expected): float
    {
        return self::SHARE_OF_TASKS + (1 - self::SHARE_OF_TASKS) * min(1.0, $sequence / max(1, $expected));
    }

    private function report(Phase $phase, float $done): void
    {
        // Tasks end in any order; what was shown as done stays done.
        $this->done = max($this->done, $done);
        $this->progress->report(
            new ProgressReport(
                $phase,
                $this->done,
                $this->records ?? $this->recordsSoFar(),
                $this->partitionsMatched,
                $this->work->parts->partitions,
            ),
        );
    }

    private function recordsOf(Side $side): int
    {
        return array_sum(array_map(static fn(ScanResult $scan): int => $scan->read, $this->work->scanResults($side)));
    }

    /** @return array{source: int, target: int} */
    private function recordsSoFar(): array
    {
        $records = ['source' => 0, 'target' => 0];
        foreach ($this->readOf as $task => $read) {
            // A task that reads both sides at once counts the records of both together.
            $sides = str_starts_with($task, 'both') ? ['source', 'target'] : [str_starts_with($task, 'source') ? 'source' : 'target'];
            foreach ($sides as $side) {
                $records[$side] += intdiv($read['records'], count($sides));
            }
        }

        return $records;
    }
}
