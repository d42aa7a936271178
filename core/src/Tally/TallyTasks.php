<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Intake\Reader;
use NineTally\Core\Matching\ScanResult;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/** The tasks of one run, in their phases, and how far they are, as one share of the whole work. */
final class TallyTasks
{
    private const SHARE_READING = 0.55;

    private const SHARE_MATCHING = 0.35;

    /** Of the whole work, from 0 to 1: what is done when all tasks are. */
    public const SHARE = self::SHARE_READING + self::SHARE_MATCHING;

    /** @var array<string, array{bytes: int, records: int}> by task */
    private array $readOf = [];

    private int $partitionsMatched = 0;

    private float $done = 0.0;

    /** @var array{source: int, target: int}|null what was read, once all is read */
    private ?array $records = null;

    /** @param Sides<Reader> $readers */
    public function __construct(
        private readonly TallyWork $work,
        private readonly Sides $readers,
        private readonly TaskExecutor $executor,
        private readonly Progress $progress,
    ) {}

    /** Both sides are read, then matched. */
    public function perform(): void
    {
        $this->read($this->work->scanTasks());
        $this->read($this->work->tasksAfterStrayQuotes());
        $this->records = ['source' => $this->recordsOf(Side::Source), 'target' => $this->recordsOf(Side::Target)];
        $this->match();
    }

    /**
     * Findings are merged in slices.
     *
     * @param  non-empty-list<SliceOfFindings>  $slices
     * @param  list<string>  $beside  tasks that are done with them, first
     */
    public function merge(array $slices, array $beside, int $expected): void
    {
        $merged = [];
        $this->executor->perform(
            $this->work,
            [...$beside, ...array_map(static fn(SliceOfFindings $slice): string => $slice->task(), $slices)],
            function (string $task, int $bytes, int $findings) use (&$merged, $expected): void {
                $merged[$task] = $findings;
                $this->merged((int) array_sum($merged), $expected);
            },
            static fn(string $task) => null,
        );
    }

    /** So many findings are merged, of as many as there are. */
    public function merged(int $findings, int $expected): void
    {
        $this->report(Phase::Merging, self::SHARE + (1 - self::SHARE) * ($expected === 0 ? 1.0 : min(1.0, $findings / $expected)));
    }

    /** What comes behind all of it is going on. */
    public function stillMerging(): void
    {
        $this->report(Phase::Merging, $this->done);
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
