<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Adapters\Database\FindingCopies;
use App\Adapters\Runs\MergedRun;
use App\Adapters\Runs\RunTasks;
use App\Adapters\Runs\RunWork;
use App\Adapters\Runs\TaskSigns;
use App\Jobs\WorkOnRun;
use App\Models\Run;
use App\Models\RunPhase;
use App\Problems\NoRoom;
use NineTally\Core\Comparison\FindingIdentity;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\TallyRun;

/** Decides what only all of both sides can decide, holds the sums against each other, and writes the findings down in their order. */
final readonly class MergeFindings
{
    private const FOLDER = 'findings';

    public function __construct(private RunWork $work, private RunTasks $tasks) {}

    public function folder(Run $run): string
    {
        return $this->work->folder($run).'/'.self::FOLDER;
    }

    /** What it left, if that is still what was written down of it. */
    public function merged(Run $run): MergedRun
    {
        return MergedRun::in($this->folder($run), $this->tasks->digests($run, RunPhase::Merge)['merge'] ?? '');
    }

    /** @return string the digest of what it leaves in the folder */
    public function __invoke(Run $run, TaskSigns $signs): string
    {
        $folder = $this->folder($run);
        if (! is_dir($folder) && ! @mkdir($folder, 0700) && ! is_dir($folder)) {
            throw NoRoom::writing();
        }
        $plan = $this->work->plan($run);
        // All of its tasks are done, so it goes on from there.
        $tally = new TallyRun(
            $plan,
            Sides::each(fn(Side $side): Reader => $this->work->reader($run, $side)),
            $this->work->tasks($run),
            $signs,
            $this->work->settings(),
            recordSource: $this->work->records($run),
            delivered: $this->work->deliveries($run),
        );
        $files = new FindingCopies(
            (int) $run->entering_tally_id,
            $folder,
            new FindingIdentity((string) $run->dataset_id, $plan->keyDefinition()),
            $plan->columnPairs,
            fn(string $name) => $this->mayBeLoaded($run, $name),
        );
        $findings = $tally->findings();
        foreach ($findings as $finding) {
            $files->add($finding);
        }
        $files->end();
        (new MergedRun($findings->getReturn(), $files->rowsByClass(), $files->names()))->keep($folder);

        return MergedRun::digestIn($folder);
    }

    /** Others load what is whole while the rest is merged: should it be merged again, the same stands there. */
    private function mayBeLoaded(Run $run, string $name): void
    {
        if (
            ! $this->work->isSmall($run) &&
            ! str_starts_with($name, 'places') &&
            $this->tasks->askFor($run, RunPhase::Load, "load-{$name}")
        ) {
            WorkOnRun::dispatch($run->id, "load-{$name}");
        }
    }
}
