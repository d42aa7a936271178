<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Matching\Spill\AtomicFile;
use NineTally\Core\Matching\Spill\WorkspaceFailure;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Report\FindingFiles;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\ForgivenPostings;
use NineTally\Core\Tally\MergedSlice;
use NineTally\Core\Tally\SliceOfFindings;
use NineTally\Core\Tally\TallyRun;

/**
 * Slices of the findings as files of the workspace: their lines, to be put together behind one another, and what was counted; and, as a
 * task beside them, in which rows forgiven cells stand.
 */
final class SliceWork
{
    public const POSTINGS = 'postings';

    private const LEFT = 'left';

    /** @var array{WorkOrder, Plan, Sides<Reader>, TallyRun}|null what all slices of a process are merged with, and its memory */
    private ?array $tally = null;

    public function __construct(private readonly string $workspace) {}

    public static function isTask(string $task): bool
    {
        return $task === self::POSTINGS || SliceOfFindings::isTask($task);
    }

    /** @param callable(int, int): void $onProgress told nothing, and the findings so far */
    public function perform(string $task, callable $onProgress): void
    {
        [$order, $plan, $readers, $run] = $this->tally ??= $this->tally();
        if ($task === self::POSTINGS) {
            AtomicFile::put("{$this->workspace}/{$task}.left", serialize($run->forgivenPostings($this->pathOfPostings())));

            return;
        }
        $folder = "{$this->workspace}/{$task}";
        $files = FindingFiles::part(
            $folder,
            $plan,
            $readers->source->columns(),
            $readers->target->columns(),
            $order->settings->listsForgiven,
        );
        $left = $run->slice(
            SliceOfFindings::ofTask($task),
            static fn(RowFinding $finding) => $files->add($finding),
            static fn(int $findings) => $onProgress(0, $findings),
            $files,
        );
        $files->finishPart();
        AtomicFile::put("{$folder}/".self::LEFT, serialize($left));
        $onProgress(0, $left->findings);
    }

    /** @return array{WorkOrder, Plan, Sides<Reader>, TallyRun} */
    private function tally(): array
    {
        [$order, $plan] = WorkOrder::open($this->workspace);
        $readers = $order->readers($plan, $this->workspace);

        return [$order, $plan, $readers, new TallyRun($plan, $readers, $this->workspace, settings: $order->settings)];
    }

    /** @return string of the file that holds the lists */
    public function pathOfPostings(): string
    {
        return "{$this->workspace}/forgiven.postings";
    }

    /** @throws WorkspaceFailure */
    public function postings(): ForgivenPostings
    {
        $path = "{$this->workspace}/".self::POSTINGS.'.left';
        $left = unserialize((string) @file_get_contents($path));

        return $left instanceof ForgivenPostings ? $left : throw WorkspaceFailure::reading($path);
    }

    /** @throws WorkspaceFailure */
    public function left(SliceOfFindings $slice): MergedSlice
    {
        $path = "{$this->workspace}/{$slice->task()}/".self::LEFT;
        $left = unserialize((string) @file_get_contents($path));

        return $left instanceof MergedSlice ? $left : throw WorkspaceFailure::reading($path);
    }

    /** @param non-empty-list<SliceOfFindings> $slices in their order */
    public function putTogether(array $slices, FindingFiles $files): void
    {
        foreach ($slices as $slice) {
            $files->append("{$this->workspace}/{$slice->task()}");
        }
    }
}
