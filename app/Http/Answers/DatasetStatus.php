<?php

declare(strict_types=1);

namespace App\Http\Answers;

use App\Adapters\Sources\SourceKind;
use App\Adapters\Sources\Sources;
use App\Http\Resources\DeliveryResource;
use App\Http\Resources\MigrationResource;
use App\Http\Resources\RunResource;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\RunState;
use App\Models\StandingCount;
use App\Models\Tally;
use App\Models\TallyTotal;
use App\Models\User;
use App\Policies\Act;
use App\Queries\Review\Masks;
use App\Signing\SignOff;
use NineTally\Core\Row\Side;

/** The state of a dataset at one glance: a live line of figures for each station, and what the person may do. */
final readonly class DatasetStatus
{
    public function __construct(private Sources $sources, private Masks $masks) {}

    /** @return array<string, mixed> */
    public function __invoke(Dataset $dataset, User $person): array
    {
        $source = $dataset->latestDelivery(Side::Source);
        $target = $dataset->latestDelivery(Side::Target);
        // The run first: when it ends before the tally is looked for, the tally is seen; else it still goes on, and is asked for again.
        $run = $dataset->latestRun()?->load(['planVersion', 'sourceDelivery', 'targetDelivery', 'user']);
        $tally = $dataset->latestTally()?->load('standingCounts');
        $draft = $dataset->draftNow();

        return [
            'id' => $dataset->id,
            'name' => $dataset->name,
            'migration' => MigrationResource::make($dataset->migration)->resolve(),
            'mayWork' => $person->can('act', [$dataset->migration, Act::Work]),
            'runsOnDelivery' => $dataset->runs_on_delivery,
            'mayRule' => $person->can('act', [$dataset->migration, Act::Rule]),
            'mayComment' => $person->can('act', [$dataset->migration, Act::Comment]),
            'sensitive' => $this->masks->state($person, $dataset),
            'seesDelivered' => ! $this->masks->keepsDeliveredFrom($person, $dataset),
            'querySources' => $this->sources->names($dataset->migration),
            'feeds' => $this->sources->ofKind($dataset->migration, SourceKind::Feed),
            'folders' => $this->sources->ofKind($dataset->migration, ...SourceKind::ofFiles()),
            'source' => $source === null ? null : DeliveryResource::make($source->load(['user', 'parts', 'explanations.user']))->resolve(),
            'target' => $target === null ? null : DeliveryResource::make($target->load(['user', 'parts', 'explanations.user']))->resolve(),
            'steps' => [
                'source' => count($draft?->rules(Side::Source)->preparation->working() ?? []),
                'target' => count($draft?->rules(Side::Target)->preparation->working() ?? []),
            ],
            'keyColumns' => $draft?->keyNames() ?? [],
            'pairs' => $draft === null ? 0 : count($draft->document['columnPairs']),
            'run' => $run === null || $run->state === RunState::Done ? null : RunResource::make($run)->resolve(),
            'tally' => $tally === null ? null : $this->tally($tally, $source, $target),
        ];
    }

    /** @return array<string, mixed> */
    private function tally(Tally $tally, ?Delivery $source, ?Delivery $target): array
    {
        $signOff = SignOff::of($tally->load(['signatures.user', 'dataset.migration.signingTerms']));

        return [
            'id' => $tally->id,
            'number' => $tally->number,
            'signed' => [
                'state' => $signOff->state->value,
                'given' => count($signOff->round),
                'asked' => $signOff->asked(),
                'isClosed' => $signOff->isClosed(),
            ],
            'finishedAt' => $tally->finished_at->toIso8601ZuluString(),
            'findings' => $tally->standingCounts->sum(static fn(StandingCount $count): int => $count->findings),
            'openFindings' => StandingCount::openOf($tally->standingCounts),
            'totals' => TallyTotal::query()->where('tally_id', $tally->id)->count(),
            'totalsDiffering' => TallyTotal::query()->where(['tally_id' => $tally->id, 'differs' => true])->count(),
            'isOnLatestDeliveries' =>
                $tally->getAttribute('source_delivery_id') === $source?->id && $tally->getAttribute('target_delivery_id') === $target?->id,
        ];
    }
}
