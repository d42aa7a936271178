<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Adapters\Database\FindingTables;
use App\Adapters\Runs\LeaseLost;
use App\Adapters\Runs\RunLease;
use App\Adapters\Runs\RunWork;
use App\Models\Run;
use App\Models\RunState;
use App\Models\Tally;
use Illuminate\Database\Connection;
use NineTally\Core\Comparison\FindingIdentity;
use NineTally\Core\Intake\Reader;
use NineTally\Core\NineTallyException;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\Summary;
use NineTally\Core\Tally\TallyCancelled;
use NineTally\Core\Tally\TallyRun;
use NineTally\Core\Tally\Workspace;

/** Does the work of a run that this worker holds, and enters the tally when its sums hold. */
final readonly class PerformRun
{
    public function __construct(
        private RunWork $work,
        private Connection $database,
        private EnterTally $enterTally,
        private int $helpers,
        private int $leaseSeconds,
    ) {}

    public function __invoke(RunLease $lease): ?Tally
    {
        $run = $lease->run();
        $this->forgetDeadWork($run);
        $own = Workspace::make($this->work->folder($run));
        $tallyId = $this->nextTallyId();
        try {
            [$summary, $tables] = $this->compare($run, $lease, $tallyId, $own->path);
            $tables->load($this->database, static fn() => $lease->sign(RunState::Loading, 0.97));

            return ($this->enterTally)($lease, $tallyId, $summary, $tables);
        } catch (TallyCancelled) {
            $lease->end(RunState::Cancelled, null);
        } catch (LeaseLost) {
            // Another worker goes on, with the tasks that are done; this one only clears up what is its own.
        } catch (NineTallyException $problem) {
            $lease->end(RunState::Failed, $problem->getMessage());
        } finally {
            $own->remove();
            // Tasks are kept as long as a run goes on: whoever takes it over need not do them again.
            $this->work->clearUp($this->database);
            if (! Tally::query()->whereKey($tallyId)->exists()) {
                $this->database->statement('SELECT drop_findings(?)', [$tallyId]);
            }
        }

        return null;
    }

    /** @return array{Summary, FindingTables} */
    private function compare(Run $run, RunLease $lease, int $tallyId, string $own): array
    {
        $plan = $this->work->plan($run);
        $tally = new TallyRun(
            $plan,
            Sides::each(fn(Side $side): Reader => $this->prepared($run, $side, $lease)),
            $this->work->tasks($run),
            $lease,
            $this->work->settings(),
            new QueueExecutor($this->database, $lease, $this->helpers, $this->leaseSeconds),
        );
        $tables = new FindingTables(
            $tallyId,
            $own,
            new FindingIdentity((string) $run->dataset_id, $plan->keyDefinition()),
            $plan->columnPairs,
            count($plan->key),
        );
        $findings = $tally->findings();
        foreach ($findings as $finding) {
            $tables->add($finding);
        }

        return [$findings->getReturn(), $tables];
    }

    /** Preparing comes before reading: it has the first hundredths of the progress. */
    private function prepared(Run $run, Side $side, RunLease $lease): Reader
    {
        $bytes = max(1, ($side === Side::Source ? $run->sourceDelivery : $run->targetDelivery)->bytes);

        return $this->work->reader($run, $side, static function (int $read, int $records) use ($lease, $side, $bytes): void {
            $lease->preparing($side, min(1.0, $read / $bytes), $records);
        });
    }

    private function nextTallyId(): int
    {
        /** @var object{id: int} $next */
        $next = $this->database->selectOne("SELECT nextval('tallies_id_seq') AS id");

        return $next->id;
    }

    /**
     * A worker that was killed left the files behind that it was loading; its tables are dropped by Watch, which knows that nobody holds
     * them.
     */
    private function forgetDeadWork(Run $run): void
    {
        foreach (glob($this->work->folder($run).'/nine-tally-*') ?: [] as $dead) {
            Workspace::at($dead)->remove();
        }
    }
}
