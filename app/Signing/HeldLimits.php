<?php

declare(strict_types=1);

namespace App\Signing;

use App\Models\SignatureAct;
use App\Models\Tally;
use App\Models\Waiver;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Limits\HeldLimit;
use NineTally\Core\Limits\Limit;
use NineTally\Core\Limits\LimitList;
use NineTally\Core\Limits\LimitScope;
use NineTally\Core\Limits\Measured;

/**
 * The limits that count for a tally, each with its figure and the waiver that lets it pass: those of its plan version, and of the migration
 * as they stood when its run began.
 */
final readonly class HeldLimits
{
    /** What a tally needs to have at hand. */
    public const RELATIONS = [
        'dataset.waivers.user', 'dataset.migration.signingTerms', 'planVersion', 'run.signingTerms', 'totals', 'recordChecks',
        'eyeChecks.verdicts', 'standingCounts', 'sourceDelivery.explanations', 'sourceDelivery.parts', 'targetDelivery.explanations',
        'targetDelivery.parts', 'signatures.user', 'purged.purge.user',
    ];

    public function __construct(private MeasuredFigures $figures) {}

    /**
     * @return list<array{held: HeldLimit, scope: string, waiver: Waiver|null}> those that fail first, those that are waived before others
     */
    public function of(Tally $tally): array
    {
        // What was accepted stays as it was then, though a waiver ends later, or is taken back.
        $last = $tally->signatures->last();
        $today = $last?->act === SignatureAct::Accepted ? $last->created_at->toImmutable() : now()->toImmutable();
        $waivers = $tally->dataset->waivers
            ->filter(static fn(Waiver $waiver): bool => $waiver->created_at->lessThanOrEqualTo($today))
            ->keyBy('limit_id');
        $limits = array_map(function (HeldLimit $held) use ($tally, $waivers, $today): array {
            $waiver = $held->state->fails() ? $waivers->get($held->limit->id()) : null;

            return [
                'held' => $held,
                'scope' => $this->scope($tally, $held->limit),
                'waiver' => $waiver?->covers($held, $today) === true ? $waiver : null,
            ];
        }, self::list($tally)->held(fn(Limit $limit): Measured => $this->figures->measure($tally, $limit)));
        $weight = static fn(HeldLimit $held, ?Waiver $waiver): int => $held->state->fails() ? ($waiver === null ? 2 : 1) : 0;
        usort(
            $limits,
            static fn(array $one, array $other): int => $weight($other['held'], $other['waiver']) <=> $weight($one['held'], $one['waiver']),
        );

        return $limits;
    }

    /** @return list<array{words: string, instead: string}> what the plan says otherwise than the migration */
    public function exceptions(Tally $tally): array
    {
        return array_map(fn(array $one): array => [
            'words' => $one['limit']->sentence($this->scope($tally, $one['limit'])),
            'instead' => $one['instead']->sentence(),
        ], self::list($tally)->exceptions());
    }

    /** To what a limit is narrowed, as people call it. */
    public function scope(Tally $tally, Limit $limit): string
    {
        if ($limit->of === null) {
            return '';
        }
        $columns = array_column($tally->figuresByColumn(), null, 'pair');
        $pair = static fn(string $id): string => isset($columns[$id])
            ? ($columns[$id]['source'] === $columns[$id]['target']
                ? $columns[$id]['source']
                : "{$columns[$id]['source']} → {$columns[$id]['target']}")
            : $id;
        [$first, $second] = [...explode(' ', $limit->of, 2), ''];

        return match ($limit->figure->scope()) {
            LimitScope::Pair => $pair($limit->of),
            LimitScope::Pattern => $pair($first).': '.CauseId::sentenceFor($second, []),
            LimitScope::Part => "part {$limit->of}",
            LimitScope::SidePart => "part {$second} of the {$first}",
            LimitScope::Step => "step {$second} of the {$first}",
            default => $limit->of,
        };
    }

    private static function list(Tally $tally): LimitList
    {
        return LimitList::of($tally->run->signingTerms?->limits() ?? [], $tally->planVersion->limits());
    }
}
