<?php

declare(strict_types=1);

namespace App\Actions\Sign;

use App\Actions\Access\Trail;
use App\Actions\Notices\GiveNotice;
use App\Models\NoticeKind;
use App\Models\Role;
use App\Models\Signature;
use App\Models\SignatureAct;
use App\Models\Tally;
use App\Models\TrailAct;
use App\Models\User;
use App\Problems\Conflict;
use App\Rulings\EffectiveRulings;
use App\Signing\SignOff;
use App\Signing\SignOffState;
use Illuminate\Database\Connection;

/**
 * Takes the signatures on a tally back, with a reason: returned by whoever is asked to check or accept it, withdrawn by who signed it. What
 * was signed stays to be read.
 */
final readonly class EndSignOff
{
    public function __construct(private Connection $database, private Trail $trail, private GiveNotice $notice) {}

    /** @throws Conflict when there is nothing to end, or it is not this person's to end */
    public function __invoke(Tally $tally, SignatureAct $act, string $reason, User $person): Signature
    {
        return $this->database->transaction(function () use ($tally, $act, $reason, $person): Signature {
            EffectiveRulings::hold($this->database, $tally->id);
            $signOff = SignOff::of($tally->load(['signatures.user', 'dataset.migration']));
            if (! self::mayEnd($signOff, $act, $person)) {
                throw Conflict::because('not-open', $signOff->round === []
                    ? "Nobody has signed tally {$tally->number}, so there is nothing to {$act->verb()}."
                    : "Tally {$tally->number} is {$signOff->state->value} and cannot be {$act->value} by you. Look at who signed last.");
            }
            $ended = $tally->signatures()->create([
                'act' => $act,
                'user_id' => $person->id,
                'role' => $person->roleIn($tally->dataset->migration),
                'method' => 'session',
                'words' => "Tally {$tally->number} of {$tally->dataset->name} is {$act->value}.",
                'reason' => $reason,
            ]);
            $about = "{$tally->dataset->name}, tally {$tally->number}: {$act->value}";
            $this->trail->note(TrailAct::EndedSignOff, $person, $about, $tally->dataset->migration);

            if ($act === SignatureAct::Returned) {
                $of = "tally {$tally->number} of {$tally->dataset->name}";
                $said = "The signatures on {$of} were returned by {$person->name}. Why stands in Sign.";
                ($this->notice)(NoticeKind::SignOffReturned, $tally->dataset, $tally, $said, 'sign');
            }

            return $ended;
        });
    }

    public static function mayEnd(SignOff $signOff, SignatureAct $act, User $person): bool
    {
        $role = $person->roleIn($signOff->tally->dataset->migration);
        $hasSigned = array_filter($signOff->round, static fn(Signature $one): bool => $one->user_id === $person->id) !== [];

        return match (true) {
            $signOff->round === [] => false,
            // What the data owner accepted, a data owner takes back.
            $signOff->state === SignOffState::Accepted => $act === SignatureAct::Withdrawn && $role === Role::DataOwner,
            $act === SignatureAct::Withdrawn => $hasSigned,
            $act === SignatureAct::Returned => $role === Role::DataOwner ||
                ($role === Role::TestManager && $signOff->next()?->role() === $role),
            default => false,
        };
    }
}
