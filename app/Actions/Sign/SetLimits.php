<?php

declare(strict_types=1);

namespace App\Actions\Sign;

use App\Actions\Access\Trail;
use App\Actions\Match\SaveDraft;
use App\Models\Dataset;
use App\Models\PlanDraft;
use App\Models\TrailAct;
use App\Models\User;
use App\Problems\Conflict;
use App\Problems\DraftChanged;
use Illuminate\Database\Connection;
use NineTally\Core\Limits\Limit;
use NineTally\Core\Limits\LimitList;

/** Says what is good enough for a dataset: in the draft of its plan, so that it counts from the next tally on. */
final readonly class SetLimits
{
    public function __construct(private Connection $database, private SaveDraft $saveDraft, private Trail $trail) {}

    /**
     * @param  list<array{figure: string, of?: string, worst: string|null}>  $limits
     * @param  int  $seen  the number of the draft that the person saw
     *
     * @throws \NineTally\Core\Plan\UnusablePlan when a limit makes no sense, with the place
     * @throws DraftChanged when somebody else has changed the limits since
     */
    public function __invoke(Dataset $dataset, array $limits, int $seen, User $person): PlanDraft
    {
        return $this->database->transaction(function () use ($dataset, $limits, $seen, $person): PlanDraft {
            Dataset::query()->lockForUpdate()->findOrFail($dataset->id);
            $draft = PlanDraft::query()->find($dataset->id);
            if ($draft === null) {
                throw Conflict::because('no-plan', 'There is no plan yet. Hand over both sides first.');
            }
            if ($draft->number !== $seen) {
                throw DraftChanged::since($seen, $draft);
            }
            $normal = $this->saveDraft->normalized(['limits' => $limits] + $draft->document);
            /** @var list<array{figure: string, of?: string, worst: string|null}> $before */
            $before = $draft->document['limits'] ?? [];
            $changes = LimitList::changes(
                array_map(Limit::fromArray(...), $before),
                array_map(Limit::fromArray(...), $limits),
            );
            $about = "{$dataset->name}: ".($changes === [] ? 'as it was' : implode('; ', $changes));
            $this->trail->note(TrailAct::SetLimits, $person, $about, $dataset->migration);
            $draft->update(['document' => $normal, 'user_id' => $person->id, 'number' => $draft->number + 1]);

            return $draft;
        });
    }
}
