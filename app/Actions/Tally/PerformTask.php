<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Adapters\Database\FindingTables;
use App\Adapters\Runs\RunTasks;
use App\Adapters\Runs\RunWork;
use App\Adapters\Runs\TaskSigns;
use App\Adapters\Storage\BlobStore;
use App\Jobs\TellPeopleOfTally;
use App\Models\Run;
use App\Models\RunPhase;
use Illuminate\Database\Connection;
use NineTally\Core\Row\Side;

/** Does one task of a run. Done twice it leaves the same. */
final readonly class PerformTask
{
    public function __construct(
        private RunTasks $tasks,
        private RunWork $work,
        private MergeFindings $merge,
        private FindingTables $tables,
        private EnterTally $enterTally,
        private BlobStore $blobs,
        private Connection $database,
    ) {}

    /**
     * @param  string  $worker  who does it
     *
     * @throws \NineTally\Core\NineTallyException when the run cannot be done, or nobody wants it any more
     */
    public function __invoke(int $runId, string $task, string $worker): void
    {
        $phase = $this->tasks->take($runId, $task, $worker);
        if ($phase === null) {
            return;
        }
        $run = Run::query()->findOrFail($runId);
        $signs = new TaskSigns($this->tasks, $runId, $task, $phase);
        match ($phase) {
            RunPhase::Prepare => str_starts_with($task, 'check-') ? $this->check($run, $task, $signs) : $this->prepare($run, $task, $signs),
            RunPhase::Divide => $this->divide($run, $signs),
            RunPhase::Scan, RunPhase::Match => $this->compare($run, $task, $phase, $signs),
            RunPhase::Merge => $signs->done(($this->merge)($run, $signs)),
            RunPhase::Load => $this->load($run, $task, $signs),
            RunPhase::Index => $this->index($run, $task, $signs),
            RunPhase::Enter => $this->enter($run, $signs),
        };
    }

    /** What was delivered is kept under its digest: other bytes are never tallied. */
    private function check(Run $run, string $task, TaskSigns $signs): void
    {
        [, $side, $number] = explode('-', $task);
        $part = $this->work->delivery($run, Side::from($side))->parts->firstOrFail('number', '=', (int) $number);
        $this->blobs->mustBeWhole($part->digest, $part->file_name);
        $signs->done(null);
    }

    private function prepare(Run $run, string $task, TaskSigns $signs): void
    {
        $side = Side::from(substr($task, strlen('prepare-')));
        $bytes = max(1, $this->work->delivery($run, $side)->bytes);
        $this->work->reader($run, $side, static fn(int $read, int $records) => $signs->give($read / $bytes, $records));
        $signs->done(null);
    }

    private function divide(Run $run, TaskSigns $signs): void
    {
        $this->work->of($run)->scanTasks();
        $signs->done(null);
    }

    private function compare(Run $run, string $task, RunPhase $phase, TaskSigns $signs): void
    {
        $work = $this->work->of($run);
        $bytes = $phase === RunPhase::Scan ? $work->bytesOf($task) : 1;
        $work->perform($task, static fn(int $read, int $records) => $signs->give($read / $bytes, $records));
        $signs->done($work->digestOf($task));
    }

    /** What is loaded and that it is loaded are one transaction: so it is loaded once, however often it is asked for. */
    private function load(Run $run, string $task, TaskSigns $signs): void
    {
        $this->database->transaction(function () use ($run, $task): void {
            if ($this->tasks->holdUndone($run->id, $task)) {
                $this->tables->load((int) $run->entering_tally_id, $this->merge->folder($run), substr($task, strlen('load-')));
                $this->tasks->done($run->id, $task, 0, null);
            }
        });
        $signs->done(null);
    }

    private function index(Run $run, string $task, TaskSigns $signs): void
    {
        foreach (array_slice(explode('-', $task), 1) as $place) {
            $this->tables->index((int) $run->entering_tally_id, count($this->work->plan($run)->key), (int) $place);
        }
        $signs->done(null);
    }

    private function enter(Run $run, TaskSigns $signs): void
    {
        $tally = ($this->enterTally)($run, $this->merge->merged($run), $this->merge->folder($run));
        $signs->done(null);
        TellPeopleOfTally::dispatch($tally->id);
    }
}
