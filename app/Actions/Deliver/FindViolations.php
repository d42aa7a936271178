<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Models\Dataset;
use App\Questions\Answers;
use App\Questions\WhatViolatesConstraints;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Side;

/** The values of the latest source delivery that the target will not take, by what the draft says that it demands. */
final readonly class FindViolations
{
    public function __construct(private Answers $answers) {}

    /** @return array<string, mixed> */
    public function __invoke(Dataset $dataset): array
    {
        $nothing = ['isWaiting' => false, 'done' => 0, 'total' => 0, 'problem' => null, 'counted' => null];
        $draft = $dataset->draft()->first();
        $source = $dataset->latestDelivery(Side::Source);
        if ($draft === null || $source === null || ($draft->document['demands'] ?? []) === []) {
            return $nothing;
        }
        if ($draft->document['key'] === []) {
            return [...$nothing, 'problem' => 'Choose a key in Match first: it says which source column becomes which target column.'];
        }
        $answer = $this->answers->to(WhatViolatesConstraints::of($source, Plan::fromJson(CanonicalJson::of($draft->document))));

        return [...$answer->progress(), 'counted' => $answer->content];
    }
}
