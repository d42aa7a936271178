<?php

declare(strict_types=1);

namespace App\Actions\Match;

use App\Models\Dataset;
use App\Models\Migration;
use App\Problems\Conflict;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\PlanDefaults;

/** Lets new datasets of the migration begin with what a draft says of both sides: so the second to the thirtieth take a few clicks. */
final readonly class KeepPlanDefaults
{
    /** @throws Conflict when the draft has no key yet, or says nothing that others could begin with */
    public function __invoke(Dataset $dataset): Migration
    {
        $draft = $dataset->draft()->first();
        if ($draft === null || $draft->document['key'] === []) {
            throw Conflict::because('no-plan', 'The plan has no key yet. Choose one before new datasets begin with what it says.');
        }
        $defaults = PlanDefaults::of(Plan::fromJson(CanonicalJson::of($draft->document)));
        if ($defaults === []) {
            throw Conflict::because(
                'nothing-to-begin-with',
                'This plan says nothing of how the sides write their values, and new pairs forgive nothing: there is nothing that new '.
                    'datasets could begin with.',
            );
        }
        $dataset->migration->update(['plan_defaults' => $defaults]);

        return $dataset->migration;
    }
}
