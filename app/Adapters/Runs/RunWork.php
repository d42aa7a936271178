<?php

declare(strict_types=1);

namespace App\Adapters\Runs;

use App\Adapters\Deliveries\PreparationInputs;
use App\Adapters\Deliveries\PreparedSides;
use App\Models\Run;
use App\Models\RunState;
use Illuminate\Database\Connection;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\TallySettings;
use NineTally\Core\Tally\TallyWork;
use NineTally\Core\Tally\Workspace;

/** Opens what a run works on, alike for every worker: the same settings give the same tasks. */
final readonly class RunWork
{
    public function __construct(private PreparedSides $sides, private string $workFolder, private int $memory) {}

    /** The folder of a run, which all its workers share; gone when the run is over. */
    public function folder(Run $run): string
    {
        return "{$this->workFolder}/run-{$run->id}";
    }

    /** Where tasks leave what they did, also for the worker that takes over from a dead one. */
    public function tasks(Run $run): string
    {
        $path = $this->folder($run).'/tasks';
        if (! is_dir($path) && ! @mkdir($path, 0700, true) && ! is_dir($path)) {
            throw new \RuntimeException('The storage could not be written; the disk may be full.');
        }

        return $path;
    }

    /** Removes what runs left behind that are over: their last worker died before it could clear up. */
    public function clearUp(Connection $database): void
    {
        foreach (glob("{$this->workFolder}/run-*", GLOB_ONLYDIR) ?: [] as $folder) {
            $run = Run::query()->find((int) substr(basename($folder), 4));
            if ($run === null || $run->state->isOver()) {
                Workspace::at($folder)->remove();
            }
        }
        $database->delete('DELETE FROM run_tasks USING runs WHERE runs.id = run_id AND runs.state IN (?, ?, ?)', [
            RunState::Done->value,
            RunState::Failed->value,
            RunState::Cancelled->value,
        ]);
    }

    public function of(Run $run): TallyWork
    {
        return new TallyWork(
            $this->plan($run),
            Sides::each(fn(Side $side): Reader => $this->reader($run, $side)),
            $this->tasks($run),
            $this->settings(),
        );
    }

    public function plan(Run $run): Plan
    {
        return $run->planVersion->plan();
    }

    /**
     * The side as it is when its steps have run; prepared first, if nobody has yet.
     *
     * @param  (callable(int, int): void)|null  $onProgress
     *
     * @throws \NineTally\Core\NineTallyException
     */
    public function reader(Run $run, Side $side, ?callable $onProgress = null): Reader
    {
        $delivery = $side === Side::Source ? $run->sourceDelivery : $run->targetDelivery;

        return $this->sides->reader(
            $delivery,
            $this->plan($run)->side($side),
            new PreparationInputs($run->parameters, $run->reference_deliveries),
            $onProgress,
        );
    }

    public function settings(): TallySettings
    {
        return new TallySettings($this->memory);
    }
}
