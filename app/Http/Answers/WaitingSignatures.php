<?php

declare(strict_types=1);

namespace App\Http\Answers;

use App\Models\Membership;
use App\Models\Role;
use App\Models\SecondFactor;
use App\Models\Tally;
use App\Models\User;
use App\Signing\HeldLimits;
use App\Signing\SignedContent;
use App\Signing\SigningBlocks;
use App\Signing\SigningWords;
use App\Signing\SignOff;
use App\Signing\SignOffState;

/** The newest tallies on which the signature of a person is the next: what others signed before, or returned. */
final readonly class WaitingSignatures
{
    public function __construct(private HeldLimits $limits, private SigningBlocks $blocks, private SignedContent $content) {}

    /** @return list<array<string, mixed>> */
    public function of(User $person): array
    {
        $signing = [Role::Analyst, Role::TestManager, Role::DataOwner];
        $migrations = Membership::query()->where('user_id', $person->id)->whereIn('role', $signing)->select('migration_id');
        $tallies = Tally::query()
            ->has('signatures')
            ->whereHas('dataset', static fn($datasets) => $datasets->whereIn('migration_id', $migrations))
            ->whereRaw('number = (SELECT max(number) FROM tallies newer WHERE newer.dataset_id = tallies.dataset_id)')
            ->with(HeldLimits::RELATIONS)
            ->get()
            ->sortBy(static fn(Tally $tally): string => mb_strtolower($tally->dataset->name));
        $hasFactor = SecondFactor::of($person) !== null;
        $waiting = [];
        foreach ($tallies as $tally) {
            $signOff = SignOff::of($tally);
            $next = $signOff->next();
            if (
                $next === null ||
                $signOff->state === SignOffState::Withdrawn ||
                $next->role() !== $person->roleIn($tally->dataset->migration)
            ) {
                continue;
            }
            $limits = $this->limits->of($tally);
            $blocks = array_filter(
                [...$this->blocks->of($tally, $limits), ...$this->blocks->duties($tally, $person, $signOff)],
                static fn(array $block): bool => in_array($next->value, $block['for'], true),
            );
            $last = $signOff->acts[count($signOff->acts) - 1];
            $waiting[] = [
                'tally' => $tally->id,
                'tallyNumber' => $tally->number,
                'datasetId' => $tally->dataset_id,
                'dataset' => $tally->dataset->name,
                'migration' => ['id' => $tally->dataset->migration_id, 'name' => $tally->dataset->migration->name],
                'act' => $next->value,
                'sentence' => SigningWords::of($next, $tally, $limits),
                'digest' => hash('sha256', $this->content->of($tally, $limits)),
                'needsCode' => $hasFactor,
                'blocks' => array_values($blocks),
                'last' => SignOffAnswer::signature($last),
            ];
        }

        return $waiting;
    }
}
