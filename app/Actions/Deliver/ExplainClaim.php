<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Models\ClaimExplanation;
use App\Models\Delivery;
use App\Models\User;
use App\Problems\Conflict;

/** Says why a claim of the deliverer does not hold. Until somebody has, it stands out. */
final readonly class ExplainClaim
{
    /** @throws Conflict when there is nothing to explain */
    public function __invoke(Delivery $delivery, int $claim, string $explanation, User $person): void
    {
        if (($delivery->claims[$claim]['holds'] ?? true) === true) {
            throw Conflict::because('nothing-to-explain', 'The deliverer\'s figure holds, or there is none: there is nothing to explain.');
        }
        ClaimExplanation::query()->create([
            'delivery_id' => $delivery->id,
            'claim' => $claim,
            'explanation' => $explanation,
            'user_id' => $person->id,
            'explained_at' => now(),
        ]);
    }
}
