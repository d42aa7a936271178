<?php

declare(strict_types=1);

namespace App\Actions\Prove;

use App\Models\EyeCheck;
use App\Models\User;
use App\Policies\Act;
use App\Problems\Conflict;

/** Gives a sample to somebody who may say something of it: they find it under what waits for them. */
final readonly class GiveEyeCheck
{
    /** @throws Conflict when the person may not rule in the migration */
    public function __invoke(EyeCheck $check, User $person, User $by): void
    {
        $migration = $check->tally->migration ?? throw new \LogicException('A tally is of a migration.');
        if (! Act::Rule->isFor($person->roleIn($migration))) {
            throw Conflict::because(
                'may-not-rule',
                "{$person->name} may not rule in this migration. Choose an analyst, a test manager or the data owner.",
            );
        }
        $check->people()->createOrFirst(['user_id' => $person->id], ['given_by' => $by->id]);
    }
}
