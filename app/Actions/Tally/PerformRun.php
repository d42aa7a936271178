<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Adapters\DeliveryReader;
use App\Adapters\FindingTables;
use App\Adapters\LeaseLost;
use App\Adapters\RunLease;
use App\Models\Run;
use App\Models\RunState;
use App\Models\Tally;
use Illuminate\Database\Connection;
use NineTally\Core\Comparison\FindingIdentity;
use NineTally\Core\NineTallyException;
use NineTally\Core\Tally\Summary;
use NineTally\Core\Tally\TallyCancelled;
use NineTally\Core\Tally\TallyRun;
use NineTally\Core\Tally\Workspace;

/** Does the work of a run that this worker holds, and enters the tally when its sums hold. */
final readonly class PerformRun
{
    public function __construct(private DeliveryReader $reader, private Connection $database, private EnterTally $enterTally, private string $workFolder) {}

    public function __invoke(RunLease $lease): ?Tally
    {
        $run = $lease->run();
        $this->forgetDeadWork($run);
        $workspace = Workspace::make("{$this->workFolder}/run-{$run->id}");
        $tallyId = $this->nextTallyId();
        try {
            [$summary, $tables] = $this->compare($run, $lease, $tallyId, $workspace->path);
            $tables->load($this->database, static fn() => $lease->sign(RunState::Loading, 0.97));

            return ($this->enterTally)($lease, $tallyId, $summary, $tables->rowsByClass());
        } catch (TallyCancelled) {
            $lease->end(RunState::Cancelled, null);
        } catch (LeaseLost) {
            // Another worker goes on; this one only clears up after itself.
        } catch (NineTallyException $problem) {
            $lease->end(RunState::Failed, $problem->getMessage());
        } finally {
            $workspace->remove();
            @rmdir("{$this->workFolder}/run-{$run->id}");
            if (! Tally::query()->whereKey($tallyId)->exists()) {
                $this->database->statement('SELECT drop_findings(?)', [$tallyId]);
            }
        }

        return null;
    }

    /** @return array{Summary, FindingTables} */
    private function compare(Run $run, RunLease $lease, int $tallyId, string $workspace): array
    {
        $plan = $run->planVersion->plan();
        $tally = new TallyRun(
            $plan,
            $this->reader->open($run->sourceDelivery),
            $this->reader->open($run->targetDelivery),
            $workspace,
            $lease,
        );
        $tables = new FindingTables($tallyId, $workspace, new FindingIdentity((string) $run->dataset_id, $plan->keyDefinition()), $plan->columnPairs);
        $findings = $tally->findings();
        foreach ($findings as $finding) {
            $tables->add($finding);
        }

        return [$findings->getReturn(), $tables];
    }

    private function nextTallyId(): int
    {
        /** @var object{id: int} $next */
        $next = $this->database->selectOne("SELECT nextval('tallies_id_seq') AS id");

        return $next->id;
    }

    /** A worker that was killed left its folder behind; its tables are dropped by Watch, which knows that nobody holds them. */
    private function forgetDeadWork(Run $run): void
    {
        $folder = "{$this->workFolder}/run-{$run->id}";
        foreach (is_dir($folder) ? (array) glob("{$folder}/nine-tally-*") : [] as $dead) {
            Workspace::at((string) $dead)->remove();
        }
    }
}
