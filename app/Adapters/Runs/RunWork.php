<?php

declare(strict_types=1);

namespace App\Adapters\Runs;

use App\Adapters\Deliveries\PreparationInputs;
use App\Adapters\Deliveries\PreparedSides;
use App\Models\Delivery;
use App\Models\Run;
use App\Problems\NoRoom;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Records\RecordSource;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\TallySettings;
use NineTally\Core\Tally\TallyWork;
use NineTally\Core\Tally\Workspace;
use NineTally\Core\Totals\DeliveredSource;

/** Opens what a run works on, alike for every worker: the same settings give the same tasks. */
final class RunWork
{
    /** Kept from task to task, for what it remembers of value pairs; of the run that this worker was at last. */
    private ?TallyWork $last = null;

    private ?string $lastRun = null;

    public function __construct(
        private readonly PreparedSides $sides,
        private readonly string $workFolder,
        private readonly int $memory,
        private readonly int $smallBytes,
    ) {}

    /** A run that one worker has done before others could be asked. */
    public function isSmall(Run $run): bool
    {
        return max($run->sourceDelivery->bytes, $run->targetDelivery->bytes) < $this->smallBytes;
    }

    /** The folder of a run, which all its workers share; gone when the run is over. */
    public function folder(Run $run): string
    {
        return "{$this->workFolder}/run-{$run->id}";
    }

    /** Where tasks leave what they did. */
    public function tasks(Run $run): string
    {
        $path = $this->folder($run).'/tasks';
        if (! is_dir($path) && ! @mkdir($path, 0700, true) && ! is_dir($path)) {
            throw NoRoom::writing();
        }

        return $path;
    }

    /** Removes what a run that is over left behind. */
    public function remove(Run $run): void
    {
        $this->last = null;
        Workspace::at($this->folder($run))->remove();
    }

    /** Removes what runs left behind that are over: their last worker died before it could. */
    public function clearUp(): void
    {
        foreach (glob("{$this->workFolder}/run-*", GLOB_ONLYDIR) ?: [] as $folder) {
            $run = Run::query()->find((int) substr(basename($folder), 4));
            if ($run === null || $run->state->isOver()) {
                Workspace::at($folder)->remove();
            }
        }
    }

    public function of(Run $run): TallyWork
    {
        $folder = $this->tasks($run);
        $which = "{$run->id} of {$run->created_at->getTimestamp()}";
        if ($this->last === null || $this->lastRun !== $which) {
            $this->last = new TallyWork(
                $this->plan($run),
                Sides::each(fn(Side $side): Reader => $this->reader($run, $side)),
                $folder,
                $this->settings(),
            );
            $this->lastRun = $which;
        }

        return $this->last;
    }

    public function plan(Run $run): Plan
    {
        return $run->planVersion->plan();
    }

    /**
     * The side as it is when its steps have run; prepared first, if nobody has yet.
     *
     * @param  (callable(int, int): void)|null  $onProgress  told bytes and records read
     *
     * @throws \NineTally\Core\NineTallyException
     */
    public function reader(Run $run, Side $side, ?callable $onProgress = null): Reader
    {
        return $this->sides->reader(
            $this->delivery($run, $side),
            $this->plan($run)->side($side),
            PreparationInputs::ofRun($run),
            $onProgress,
        );
    }

    /** Records of other datasets that values of the run must have. */
    public function records(Run $run): RecordSource
    {
        return $this->sides->records(PreparationInputs::ofRun($run));
    }

    /** The sides of the run as they were delivered. */
    public function deliveries(Run $run): DeliveredSource
    {
        return $this->sides->deliveries(['source' => $this->delivery($run, Side::Source), 'target' => $this->delivery($run, Side::Target)]);
    }

    /** Whether there is nothing to prepare. */
    public function isReadAsDelivered(Run $run, Side $side): bool
    {
        return $this->sides->isReadAsDelivered($this->delivery($run, $side), $this->plan($run)->side($side));
    }

    public function delivery(Run $run, Side $side): Delivery
    {
        return $side === Side::Source ? $run->sourceDelivery : $run->targetDelivery;
    }

    public function settings(): TallySettings
    {
        return new TallySettings($this->memory);
    }
}
