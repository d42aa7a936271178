<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Adapters\Database\FindingTables;
use App\Adapters\Runs\RunTasks;
use App\Adapters\Runs\RunWork;
use App\Models\Run;
use App\Models\RunPhase;
use Illuminate\Database\Connection;
use NineTally\Core\Row\Side;

/**
 * Takes a run on: says which tasks are to be done now, and opens the next phase when none is missing. It may be called by anybody, as
 * often as they like; what is done stands in the table of tasks and in the results that they left, and nowhere else.
 */
final readonly class AdvanceRun
{
    /** Tasks of a run that may wait or be at work at once, for each worker: so that runs take turns. */
    private const TASKS_A_WORKER = 2;

    public function __construct(
        private Connection $database,
        private RunTasks $tasks,
        private RunWork $work,
        private MergeFindings $merge,
        private FindingTables $tables,
        private int $workers,
    ) {}

    /**
     * @param  bool  $takesSilent  whether tasks count as not asked for when whoever has them gave no sign for long
     * @return list<string> tasks to be done now, which nobody else is told
     */
    public function __invoke(int $runId, bool $takesSilent = false): array
    {
        return $this->database->transaction(function () use ($runId, $takesSilent): array {
            $run = Run::query()->lockForUpdate()->find($runId);
            if ($run === null || $run->state->isOver()) {
                return [];
            }
            $phase = $run->phase;
            while ($phase === null || ! $this->tasks->hasMissing($run, $phase)) {
                if ($phase !== null && $this->opensAgain($run, $phase)) {
                    continue;
                }
                $phase = $phase === null ? RunPhase::Prepare : $phase->next();
                if ($phase === null) {
                    return [];
                }
                $run->update(['phase' => $phase, 'state' => $phase->state()]);
                $this->tasks->open($run, $phase, $this->tasksOf($run, $phase));
            }

            return $this->tasks->ask($run, $phase, self::TASKS_A_WORKER * $this->workers, $takesSilent);
        });
    }

    /** @return list<string> names of the tasks of a phase; all before it must be done */
    private function tasksOf(Run $run, RunPhase $phase): array
    {
        return match ($phase) {
            RunPhase::Prepare => [...$this->checks($run), ...$this->prepares($run)],
            RunPhase::Divide => $this->work->isSmall($run) ? [] : ['divide'],
            RunPhase::Scan => $this->work->of($run)->scanTasks(),
            RunPhase::Match => $this->work->of($run)->matchTasks(),
            RunPhase::Merge => $this->merges($run),
            RunPhase::Load => $this->loads($run),
            RunPhase::Index => $this->indexes($run),
            RunPhase::Enter => ['enter'],
        };
    }

    /** @return list<string> one for each part: that its bytes are those that were delivered */
    private function checks(Run $run): array
    {
        $checks = [];
        foreach (Side::cases() as $side) {
            foreach ($this->work->delivery($run, $side)->parts as $part) {
                $checks[] = "check-{$side->value}-{$part->number}";
            }
        }

        return $checks;
    }

    /** @return list<string> */
    private function prepares(Run $run): array
    {
        $sides = array_filter(Side::cases(), fn(Side $side): bool => ! $this->work->isReadAsDelivered($run, $side));

        return array_map(static fn(Side $side): string => "prepare-{$side->value}", array_values($sides));
    }

    /** @return list<string> with the tables that its findings are loaded into, from the first file on */
    private function merges(Run $run): array
    {
        $tallyId = $this->tables->nextTallyId();
        $run->update(['entering_tally_id' => $tallyId]);
        $this->tables->open($tallyId);

        return ['merge'];
    }

    /** @return list<string> */
    private function loads(Run $run): array
    {
        $files = $this->merge->merged($run)->files;

        return array_map(static fn(string $name): string => "load-{$name}", [...$files['rows'], ...$files['cells']]);
    }

    /** @return list<string> one for each index where that takes long, else one for all */
    private function indexes(Run $run): array
    {
        $places = $this->tables->indexes(count($this->work->plan($run)->key));

        return $this->work->isSmall($run)
            ? ['index-'.implode('-', $places)]
            : array_map(static fn(int $place): string => "index-{$place}", $places);
    }

    /**
     * Has done again what is not there, or is not what was written down of it; and a side whose quotes turned out to be stray, which is
     * read once more, from its beginning.
     */
    private function opensAgain(Run $run, RunPhase $phase): bool
    {
        if ($phase !== RunPhase::Scan && $phase !== RunPhase::Match) {
            return false;
        }
        $work = $this->work->of($run);
        $digests = $this->tasks->digests($run, $phase);
        $tasks = $phase === RunPhase::Scan ? $work->scanTasks() : $work->matchTasks();
        // Those that there are no more are of a side that is read in one since.
        $useless = array_filter(
            array_keys($digests),
            static fn(string $task): bool => ! in_array($task, $tasks, true) || $work->digestOf($task) !== $digests[$task],
        );
        if ($useless === [] && $phase === RunPhase::Scan && $work->tasksAfterStrayQuotes() !== []) {
            return $this->opensAgain($run, $phase);
        }
        array_map($work->forget(...), $useless);
        $this->tasks->forget($run, array_values($useless));
        $this->tasks->open($run, $phase, $tasks);

        return $useless !== [];
    }
}
