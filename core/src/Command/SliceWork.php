<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Matching\Spill\AtomicFile;
use NineTally\Core\Matching\Spill\WorkspaceFailure;
use NineTally\Core\Report\FindingFiles;
use NineTally\Core\Tally\MergedSlice;
use NineTally\Core\Tally\SliceOfFindings;
use NineTally\Core\Tally\TallyRun;

/** Slices of the findings as files of the workspace: their lines, to be put together behind one another, and what was counted. */
final readonly class SliceWork
{
    private const LEFT = 'left';

    public function __construct(private string $workspace) {}

    /** @param callable(int, int): void $onProgress told nothing, and the findings so far */
    public function perform(string $task, callable $onProgress): void
    {
        [$order, $plan] = WorkOrder::open($this->workspace);
        $readers = $order->readers($plan, $this->workspace);
        $folder = "{$this->workspace}/{$task}";
        $files = FindingFiles::part(
            $folder,
            $plan,
            $readers->source->columns(),
            $readers->target->columns(),
            $order->settings->listsForgiven,
        );
        $run = new TallyRun($plan, $readers, $this->workspace, settings: $order->settings);
        $left = $run->slice(
            SliceOfFindings::ofTask($task),
            static fn(RowFinding $finding) => $files->add($finding),
            static fn(int $findings) => $onProgress(0, $findings),
        );
        $files->finishPart();
        AtomicFile::put("{$folder}/".self::LEFT, serialize($left));
        $onProgress(0, $left->findings);
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
