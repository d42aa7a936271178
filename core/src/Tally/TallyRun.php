<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Figures\UnbalancedTally;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Intake\UnreadableFile;
use NineTally\Core\Matching\MatchCounts;
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
    /** Of the whole work, from 0 to 1: what is done when all tasks are. */
    public const SHARE_OF_TASKS = TallyTasks::SHARE;

    /** Findings between two reports of progress. */
    private const FINDINGS_A_REPORT = 1_000;

    private readonly TallyWork $work;

    private readonly TallyTasks $tasks;

    private readonly string $workspace;

    /** What slices of one process are all made with. */
    private ?MatchCounts $countsOfSlices = null;

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
        Progress $progress = new SilentProgress,
        private readonly TallySettings $settings = new TallySettings,
        TaskExecutor $executor = new SequentialExecutor,
        private readonly RecordSource $recordSource = new NoRecords,
        private readonly ?DeliveredSource $delivered = null,
    ) {
        $this->workspace = $workspace;
        $this->work = new TallyWork($plan, $readers, $workspace, $settings);
        $this->tasks = new TallyTasks($this->work, $readers, $executor, $progress);
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
        [$source, $target, $counts] = $this->counted();
        $parts = $this->work->parts;
        $assembler = $this->assembler($counts);
        $shares = $parts->totals->shares($counts->shares, $parts->comparisons());
        $expected = self::expected($source, $target);
        yield from $this->merge($expected, $assembler, $shares);

        return $this->summary($source, $target, $counts, $assembler);
    }

    /** Whether slices of the findings can be merged by themselves: shares of control totals are told by the numbers of patterns. */
    public function hasSlices(): bool
    {
        return $this->plan->columnRules->totals === [];
    }

    /**
     * All findings, merged in slices by the executor's workers, each of which keeps what it made of them.
     *
     * @param  \Closure(SliceOfFindings): MergedSlice  $leftOf  what merging a slice left
     * @param  list<string>  $beside  tasks of the executor that are done with the slices
     * @return Summary|null null where the slices do not say all that is to be told of them: then they are merged all at once
     *
     * @throws UnreadableFile
     * @throws TallyCancelled
     * @throws UnbalancedTally
     */
    public function inSlices(int $ofEachSide, \Closure $leftOf, array $beside = []): ?Summary
    {
        [$source, $target, $counts] = $this->counted();
        $expected = self::expected($source, $target);
        $slices = SliceOfFindings::all($ofEachSide);
        $this->tasks->merge($slices, $beside, $expected);
        $assembler = $this->assembler($counts);
        $findings = 0;
        foreach ($slices as $slice) {
            $left = $leftOf($slice);
            if (! $left->patterns->isWhole()) {
                return null;
            }
            $assembler->take($left);
            $findings += $left->findings;
        }
        $this->mustBeAll($findings, $expected);

        return $this->summary($source, $target, $counts, $assembler);
    }

    /**
     * A slice of the findings; all tasks must be done.
     *
     * @param  \Closure(RowFinding): void  $into
     * @param  \Closure(int): void  $onProgress  told the findings so far
     * @param  PlainLines|null  $lines  for those that need not come as a whole
     */
    public function slice(SliceOfFindings $slice, \Closure $into, \Closure $onProgress, ?PlainLines $lines = null): MergedSlice
    {
        $assembler = $this->assembler($this->countsOfSlices ??= $this->work->matchCounts())->ofSlice();
        $ofSide = array_sum(array_map(static fn(ScanResult $result): int => $result->lines, $this->work->scanResults($slice->side)));
        $plain = $lines === null ? null : $assembler->plain($lines);
        $findings = 0;
        foreach ($this->work->entries($slice->side, ...$slice->lines($ofSide)) as $linesBefore => $entry) {
            $isFinding = $entry->class !== RowClass::Agreed;
            if ($plain?->take($entry, $linesBefore) === true) {
                $findings++;
            } else {
                $into($assembler->assemble($entry, $linesBefore, $isFinding ? ++$findings : 0));
            }
            if ($isFinding && $findings % self::FINDINGS_A_REPORT === 0) {
                $onProgress($findings);
            }
        }

        return $assembler->slice($findings);
    }

    /** @return array{SideCounts, SideCounts, MatchCounts} source, target, and what matching counted, when all tasks are done and balance */
    private function counted(): array
    {
        $this->tasks->perform();
        $counts = $this->work->matchCounts();
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

        return [$source, $target, $counts];
    }

    private function assembler(MatchCounts $counts): FindingAssembler
    {
        return new FindingAssembler(
            $this->plan,
            $this->readers,
            $this->work->parts->comparisons(),
            $this->work->parts->catalogue,
            $counts,
            $this->work->valueCounts(),
            $this->leftOutKeys(),
            $this->settings->listsForgiven,
        );
    }

    private function summary(SideCounts $source, SideCounts $target, MatchCounts $counts, FindingAssembler $assembler): Summary
    {
        return new Summary(
            $source,
            $target,
            $assembler->columns()->all(),
            $assembler->patterns(),
            new KeyFigures(
                KeyForgiven::of($this->plan, $counts),
                $counts->bridged,
                array_map(fn(int $number) => $this->plan->bridges->confirmed[$number], $counts->idleBridges),
                $counts->undecided(),
                ChoiceFigures::of($this->plan, $counts, $this->work->parts->catalogue->forms),
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
            fn() => $this->tasks->stillMerging(),
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
            fn() => $this->tasks->stillMerging(),
        ))->reports();
    }

    /** In which rows each pattern of forgiven cells stands, of the key too, with the lists in a file; when all rows are matched. */
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

    /** @return \Generator<int, RowFinding> */
    private function merge(int $expected, FindingAssembler $assembler, ?TotalShares $shares): \Generator
    {
        $sequence = $passed = 0;
        foreach (Side::cases() as $side) {
            foreach ($this->work->entries($side) as $linesBefore => $entry) {
                $isFinding = $entry->class !== RowClass::Agreed;
                $finding = $assembler->assemble($entry, $linesBefore, $isFinding ? ++$sequence : 0);
                $shares?->see($finding);
                yield $finding;
                if (++$passed % self::FINDINGS_A_REPORT === 0) {
                    $this->tasks->merged($sequence, $expected);
                }
            }
        }
        $this->mustBeAll($sequence, $expected);
    }

    private static function expected(SideCounts $source, SideCounts $target): int
    {
        return $source->refused + $source->unkeyed + $source->repeated + $source->changed + $source->unmatched
            + $target->refused + $target->unkeyed + $target->repeated + $target->unmatched;
    }

    private function mustBeAll(int $findings, int $expected): void
    {
        if ($findings !== $expected) {
            throw UnbalancedTally::inEquation('findings merged = findings counted', $findings, $expected);
        }
        $this->tasks->merged($expected, $expected);
    }
}
