<?php

declare(strict_types=1);

namespace App\Actions\Prove;

use App\Models\EyeCheck;
use App\Models\Tally;
use App\Models\User;
use App\Problems\Conflict;
use App\Queries\Prove\EyeChecks;
use App\Questions\Answers;
use App\Questions\SampleOfAgreed;
use Illuminate\Support\Facades\DB;

/** Draws a sample of rows that agree. The seed is drawn too, by nobody: who could choose it could choose the rows. */
final readonly class DrawEyeCheck
{
    public function __construct(private EyeChecks $checks, private Answers $answers) {}

    /** @throws Conflict when no row agrees */
    public function __invoke(Tally $tally, float $confidence, float $share, User $person): EyeCheck
    {
        $sizes = $this->checks->sizes($tally, $confidence, $share);
        if (array_sum($sizes) === 0) {
            throw Conflict::because('nothing-agrees', 'No row of this tally agrees, so there is none to be looked at.');
        }
        $check = DB::transaction(function () use ($tally, $confidence, $share, $sizes, $person): EyeCheck {
            $check = EyeCheck::query()->create([
                'tally_id' => $tally->id,
                'seed' => bin2hex(random_bytes(16)),
                'confidence' => $confidence,
                'share' => $share,
                'sizes' => $sizes,
                'populations' => $this->checks->populations($tally),
                'user_id' => $person->id,
            ]);
            $check->people()->create(['user_id' => $person->id, 'given_by' => $person->id]);

            return $check;
        });
        $this->answers->to(SampleOfAgreed::of($check->load('tally.planVersion')));

        return $check;
    }
}
