<?php

declare(strict_types=1);

namespace App\Actions\Sign;

use App\Models\ReportText;
use App\Models\Tally;
use App\Models\User;
use App\Rulings\EffectiveRulings;
use App\Signing\SignOff;
use Illuminate\Database\Connection;

/** Enters what somebody says in the report in their own words. It is signed with the rest, so nobody changes it once somebody has. */
final readonly class SayInReport
{
    public function __construct(private Connection $database) {}

    /** @throws \App\Problems\Conflict when somebody has signed the tally */
    public function __invoke(Tally $tally, string $place, string $text, User $person): ReportText
    {
        return $this->database->transaction(function () use ($tally, $place, $text, $person): ReportText {
            EffectiveRulings::hold($this->database, $tally->id);
            SignOff::mustNotLock($tally);

            return ReportText::query()->create(['tally_id' => $tally->id, 'place' => $place, 'text' => $text, 'user_id' => $person->id]);
        });
    }
}
