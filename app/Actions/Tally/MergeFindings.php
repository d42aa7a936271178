<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Adapters\Database\FindingFiles;
use App\Adapters\Runs\MergedRun;
use App\Adapters\Runs\RunWork;
use App\Adapters\Runs\TaskSigns;
use App\Models\Run;
use NineTally\Core\Comparison\FindingIdentity;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\TallyRun;
use NineTally\Core\Tally\Workspace;

/** Decides what only all of both sides can decide, holds the sums against each other, and writes the findings down in their order. */
final readonly class MergeFindings
{
    private const FOLDER = 'findings';

    public function __construct(private RunWork $work) {}

    public function folder(Run $run): string
    {
        return $this->work->folder($run).'/'.self::FOLDER;
    }

    /** @return string the digest of what it leaves in the folder */
    public function __invoke(Run $run, TaskSigns $signs): string
    {
        if (! is_dir($this->folder($run))) {
            // Whoever is thought dead may be at it still: each writes in a folder of its own, and both write the same.
            $own = Workspace::make($this->work->folder($run));
            try {
                $this->write($run, $own->path, $signs);
                @rename($own->path, $this->folder($run));
            } finally {
                $own->remove();
            }
        }

        return MergedRun::digestIn($this->folder($run));
    }

    private function write(Run $run, string $folder, TaskSigns $signs): void
    {
        $plan = $this->work->plan($run);
        // All of its tasks are done, so it goes on from there.
        $tally = new TallyRun(
            $plan,
            Sides::each(fn(Side $side): Reader => $this->work->reader($run, $side)),
            $this->work->tasks($run),
            $signs,
            $this->work->settings(),
        );
        $files = new FindingFiles(
            (int) $run->entering_tally_id,
            $folder,
            new FindingIdentity((string) $run->dataset_id, $plan->keyDefinition()),
            $plan->columnPairs,
        );
        $findings = $tally->findings();
        foreach ($findings as $finding) {
            $files->add($finding);
        }
        $files->end();
        (new MergedRun($findings->getReturn(), $files->rowsByClass(), $files->names()))->keep($folder);
    }
}
