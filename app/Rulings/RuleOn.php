<?php

declare(strict_types=1);

namespace App\Rulings;

use App\Actions\Access\Trail;
use App\Adapters\Database\CopyText;
use App\Adapters\Database\DatabaseRow;
use App\Models\Ruling;
use App\Models\RulingScope;
use App\Models\StandingCount;
use App\Models\Tally;
use App\Models\TrailAct;
use App\Models\User;
use App\Problems\Conflict;
use App\Rulings\FindingSet\Filter;
use App\Rulings\FindingSet\MembersOfFilter;
use App\Signing\SignOff;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use NineTally\Core\Comparison\RowClass;

/** Adds an act of ruling. Earlier acts stay; the newest that covers a finding stands. */
final readonly class RuleOn
{
    public function __construct(
        private Connection $database,
        private EffectiveRulings $standings,
        private MembersOfFilter $members,
        private Trail $trail,
    ) {}

    /**
     * @param  int  $seenAct  the newest act on the tally that the person had seen, 0 for none
     *
     * @throws Conflict if a newer tally is there; with the other act, if somebody else ruled meanwhile; or if there is nothing to rule on
     */
    public function __invoke(Tally $tally, NewRuling $ruling, int $seenAct, User $person): Ruling
    {
        return $this->database->transaction(function () use ($tally, $ruling, $seenAct, $person): Ruling {
            // The second of two people who rule at the same moment is shown what the first did.
            EffectiveRulings::hold($this->database, $tally->id);
            $this->mustBeNewest($tally);
            SignOff::mustNotLock($tally);
            $this->mustHaveSeen($tally, $seenAct, $person);
            $twin = $this->twin($tally, $ruling, $seenAct, $person);
            if ($twin !== null) {
                return $twin;
            }
            $act = Ruling::query()->create([
                'dataset_id' => $tally->dataset_id,
                'tally_id' => $tally->id,
                'scope' => $ruling->scope,
                ...$this->covered($tally, $ruling),
                'decision' => $ruling->decision,
                'reason' => $ruling->reason,
                'ticket' => $ruling->ticket,
                'asked_id' => $ruling->askedId,
                'holds_up_to' => $ruling->holdsUpTo,
                'holds_for' => $ruling->holdsFor,
                'user_id' => $person->id,
            ]);
            $this->standings->follow($act);
            $about = sprintf(
                '%s, tally %d: %s on %d findings, ruling %d',
                $tally->dataset->name,
                $tally->number,
                $ruling->decision->value,
                $act->findings,
                $act->id,
            );
            $this->trail->note(TrailAct::Ruled, $person, $about, $tally->dataset->migration);

            return $act;
        });
    }

    /** What is decided is decided on the newest tally: from an older one nothing would reach those who look at this. */
    private function mustBeNewest(Tally $tally): void
    {
        $newest = $tally->dataset->latestTally();
        if ($newest !== null && $newest->id !== $tally->id) {
            throw Conflict::because(
                'overtaken',
                sprintf('Tally %d is newer than this one. Rule there: what you decide here would not reach it.', $newest->number),
            );
        }
    }

    private function mustHaveSeen(Tally $tally, int $seenAct, User $person): void
    {
        $unseen = $tally
            ->rulings()
            ->with('user')
            ->where('id', '>', $seenAct)
            ->where('user_id', '!=', $person->id)
            ->orderByDesc('id')
            ->first();
        if ($unseen !== null) {
            throw Conflict::because(
                'ruled-meanwhile',
                sprintf(
                    '%s ruled on this tally meanwhile: %s on %s findings%s. Look at it, then rule again if you still want to; nothing of '.
                        'yours was entered.',
                    $unseen->user->name,
                    $unseen->decision->value ?? 'undid a ruling',
                    number_format($unseen->findings),
                    $unseen->reason === '' ? '' : ', because "'.$unseen->reason.'"',
                ),
            );
        }
    }

    /** The same act, which the same person entered since: a double click enters it once. */
    private function twin(Tally $tally, NewRuling $ruling, int $seenAct, User $person): ?Ruling
    {
        $newest = $tally->rulings()->where('id', '>', $seenAct)->where('user_id', $person->id)->orderByDesc('id')->first();
        if ($newest === null || $newest->scope !== $ruling->scope || $newest->decision !== $ruling->decision) {
            return null;
        }
        $isSame =
            [$newest->reason, $newest->ticket, $newest->asked_id, $newest->holds_up_to, $newest->holds_for] ==
                [$ruling->reason, $ruling->ticket, $ruling->askedId, $ruling->holdsUpTo, $ruling->holdsFor] &&
            match ($ruling->scope) {
                RulingScope::Pattern => $newest->pattern_number === (int) $ruling->target,
                RulingScope::RowClass => $newest->row_class === $ruling->target,
                RulingScope::Row, RulingScope::Cell => $newest->sequence === (int) $ruling->target,
                default => $newest->filter == $ruling->filter?->toArray(),
            };

        return $isSame ? $newest : null;
    }

    /** @return array<string, mixed> what the act covers, and how many findings that are */
    private function covered(Tally $tally, NewRuling $ruling): array
    {
        $target = $ruling->target;

        return match ($ruling->scope) {
            RulingScope::Pattern => [
                'pattern_number' => (int) $target,
                'findings' => $this->findingsOf($tally, FindingGroup::ofPattern((int) $target)->name()),
            ],
            RulingScope::RowClass => [
                'row_class' => $target,
                'findings' => $this->findingsOf($tally, FindingGroup::ofClass(RowClass::from($target))->name()),
            ],
            RulingScope::Row, RulingScope::Cell => [
                'sequence' => (int) $target,
                'identity' => $this->identity($tally, $ruling->scope, (int) $target),
                'findings' => 1,
            ],
            RulingScope::Selection, RulingScope::Filter => $this->keepMembers(
                $tally,
                $ruling->filter ?? throw new \LogicException('The request asks for it.'),
            ),
            RulingScope::Undo => throw new \LogicException('Undoing is an act of its own.'),
        };
    }

    private function findingsOf(Tally $tally, string $group): int
    {
        return StandingCount::query()->where('tally_id', $tally->id)->where('group', $group)->firstOrFail()->findings;
    }

    private function identity(Tally $tally, RulingScope $scope, int $sequence): \Illuminate\Contracts\Database\Query\Expression
    {
        $finding = $this->database->table($scope === RulingScope::Row ? 'row_findings' : 'cell_findings')
            ->where('tally_id', $tally->id)->where('sequence', $sequence)
            // A changed row is explained by its cells: there is nothing to rule on in the row itself.
            ->when($scope === RulingScope::Row, static fn($query) => $query->where('class', '!=', RowClass::Changed->value))
            ->selectRaw("encode(identity, 'hex') AS identity")->first();

        return $finding === null
            ? throw new ModelNotFoundException
            : $this->database->raw("decode('".DatabaseRow::of($finding)->text('identity')."', 'hex')");
    }

    /**
     * Keeps which findings a filter means now. They are entered before the act, which says how many they are and is never changed.
     *
     * @return array{id: int, filter: array<string, mixed>, findings: int}
     */
    private function keepMembers(Tally $tally, Filter $filter): array
    {
        $id = DatabaseRow::of($this->database->query()->selectRaw("nextval('rulings_id_seq') AS id")->first() ?? new \stdClass)->int('id');
        $lines = [];
        $findings = 0;
        // Read and written back, for the database looks with one processor for what it enters itself.
        foreach ($this->members->of($tally, $filter) as [$group, $block, $members]) {
            $findings += $members->count();
            $lines[] = CopyText::line([$id, $group, $block, CopyText::bytes($members->places)]);
        }
        CopyText::into($this->database, 'ruling_members', 'ruling_id,"group",block,places', $lines);

        return $findings === 0
            ? throw Conflict::because(
                'nothing-to-rule-on',
                'No finding is in this filter any more, so nothing was entered. Load the list again.',
            )
            : ['id' => $id, 'filter' => $filter->toArray(), 'findings' => $findings];
    }
}
