<?php

declare(strict_types=1);

namespace App\Actions\Sign;

use App\Actions\Access\Trail;
use App\Models\Tally;
use App\Models\TrailAct;
use App\Models\User;
use App\Models\Waiver;
use App\Problems\Conflict;
use App\Rulings\EffectiveRulings;
use App\Signing\HeldLimits;
use App\Signing\SignOff;
use App\Signing\SignOffState;
use Illuminate\Database\Connection;

/** Lets a limit that fails pass, for no worse a figure than it is now and until a day; or takes such a waiver back. */
final readonly class WaiveLimit
{
    public function __construct(private Connection $database, private HeldLimits $limits, private Trail $trail) {}

    /** @throws Conflict when the limit holds, or the tally is accepted */
    public function __invoke(Tally $tally, string $limitId, string $reason, string $endsOn, ?string $ticket, User $person): Waiver
    {
        return $this->enter($tally, $limitId, $person, ['reason' => $reason, 'ends_on' => $endsOn, 'ticket' => $ticket]);
    }

    /** @throws Conflict */
    public function lift(Tally $tally, string $limitId, string $reason, User $person): Waiver
    {
        return $this->enter($tally, $limitId, $person, ['reason' => $reason, 'ends_on' => now()->format('Y-m-d'), 'is_lifted' => true]);
    }

    /** @param array<string, mixed> $said */
    private function enter(Tally $tally, string $limitId, User $person, array $said): Waiver
    {
        return $this->database->transaction(function () use ($tally, $limitId, $person, $said): Waiver {
            EffectiveRulings::hold($this->database, $tally->id);
            $tally->load(HeldLimits::RELATIONS);
            if (SignOff::of($tally)->state === SignOffState::Accepted) {
                throw Conflict::because('signed', "Tally {$tally->number} is accepted; its waivers are what they were then.");
            }
            $found = null;
            foreach ($this->limits->of($tally) as $one) {
                $found = $one['held']->limit->id() === $limitId ? $one['held'] : $found;
            }
            if ($found === null || ! $found->state->fails()) {
                throw Conflict::because('limit-holds', 'This limit does not fail on this tally, so there is nothing to waive.');
            }
            $waiver = $tally->dataset->waivers()->create([
                'tally_id' => $tally->id,
                'limit_id' => $limitId,
                'worst' => $found->worst,
                'value' => $found->measured->exact(),
                'user_id' => $person->id,
                ...$said,
            ]);
            $about =
                "{$tally->dataset->name}, tally {$tally->number}: {$found->limit->sentence()}".
                ($waiver->is_lifted ? ', waiver taken back' : '');
            $this->trail->note(TrailAct::Waived, $person, $about, $tally->dataset->migration);

            return $waiver->setRelation('user', $person);
        });
    }
}
