<?php

declare(strict_types=1);

namespace App\Actions\Match;

use App\Models\Dataset;
use App\Models\PlanDraft;
use App\Models\User;
use App\Problems\Conflict;
use App\Queries\Review\Masks;
use NineTally\Core\NineTallyException;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\DraftJoin;
use NineTally\Core\Plan\PlanChanges;

/** Joins what somebody made of a draft with what somebody else saved meanwhile, and says in words what each changed. */
final readonly class JoinDrafts
{
    public function __construct(private SaveDraft $saveDraft, private Masks $masks, private PlanChanges $changes) {}

    /**
     * @param  array<string, mixed>  $base  the draft that was changed
     * @param  array<string, mixed>  $mine
     * @param  list<string>  $mineAt  pointers of clashes that are settled by mine
     * @param  list<string>  $theirsAt
     * @return array{draft: array<string, mixed>, number: int, by: string, theirChanges: list<string>, clashes: list<array{at: string,
     *     mine: string, theirs: string}>}
     *
     * @throws \NineTally\Core\Plan\UnusablePlan when either does not follow the schema
     */
    public function __invoke(Dataset $dataset, array $base, array $mine, array $mineAt, array $theirsAt, User $person): array
    {
        $draft = $dataset->draft()->with('user')->first() ?? throw Conflict::because('no-plan', 'There is no draft to join with.');
        // Masked for the person, as what the person made of it is.
        $document = $this->masks->plan($dataset, $draft->document, $person);
        [$base, $mine, $theirs] = array_map($this->saveDraft->normalized(...), [$base, $mine, $document]);
        $join = new DraftJoin($base, $mine, $theirs, $mineAt, $theirsAt);

        return [
            'draft' => array_diff_key($join->document, ['formatVersion' => true]),
            'number' => $draft->number,
            'by' => $draft->user->name ?? '',
            'theirChanges' => $this->changes->between(PlanDraft::planOf($base), PlanDraft::planOf($theirs)),
            'clashes' => array_map(function (array $clash) use ($base, $mine, $theirs, $join, $mineAt, $theirsAt): array {
                // What choosing the one or the other would change, all else as it is joined.
                $withMine = (new DraftJoin($base, $mine, $theirs, [...$mineAt, $clash['at']], $theirsAt))->document;

                return [
                    'at' => $clash['at'],
                    'mine' => $this->inWords($join->document, $withMine, $clash['mine']),
                    'theirs' => $this->inWords($withMine, $join->document, $clash['theirs']),
                ];
            }, $join->clashes),
        ];
    }

    /**
     * @param  array<string, mixed>  $before
     * @param  array<string, mixed>  $after
     */
    private function inWords(array $before, array $after, mixed $value): string
    {
        try {
            $changes = $this->changes->between(PlanDraft::planOf($before), PlanDraft::planOf($after));
        } catch (NineTallyException) {
            // A draft that is no plan yet has no words for what changes.
            $changes = [];
        }

        return $changes === [] ? ($value === null ? 'taken away' : CanonicalJson::of($value)) : implode('; ', $changes);
    }
}
