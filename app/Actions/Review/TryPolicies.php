<?php

declare(strict_types=1);

namespace App\Actions\Review;

use App\Models\Dataset;
use App\Problems\Conflict;
use App\Queries\Review\SideMask;
use App\Questions\Answers;
use App\Questions\BothSides;
use App\Questions\PoliciesTried;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\NineTallyException;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Repeats\RepeatsPolicy;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/**
 * What would become of rows that share the key under policies that are not in the plan yet: tried on all of them, and nothing is changed.
 *
 * @phpstan-import-type PolicyDocument from PoliciesTried
 * @phpstan-import-type ShownRow from PoliciesTried
 *
 * @phpstan-type Policies array{source: PolicyDocument, target: PolicyDocument}
 */
final readonly class TryPolicies
{
    /** Of a plan, what has no say in what becomes of a row. */
    private const NO_SAY = ['limits' => true, 'totals' => true, 'records' => true, 'demands' => true, 'equivalents' => true];

    public function __construct(private Answers $answers) {}

    /**
     * @param  list<Policies>  $policies  what the plan says where none are named
     * @param  string|null  $stake  a paired column of the source: what is left out of it is added up
     * @param  Sides<SideMask>  $masks
     * @return array<string, mixed>
     *
     * @throws \App\Problems\ValuesAreMasked when masked values would be put in order or added up
     */
    public function __invoke(Dataset $dataset, array $policies, ?string $stake, Sides $masks): array
    {
        $sides =
            BothSides::of($dataset) ??
            throw Conflict::because('no-delivery', 'Both sides must have delivered before a policy can be tried on their rows.');
        $draft = $dataset->draftNow();
        if ($draft === null || $draft->document['key'] === []) {
            throw Conflict::because('no-plan', 'There is no key yet. Choose one in Match.');
        }
        $document = array_diff_key($draft->document, self::NO_SAY);
        $plan = Plan::fromJson(CanonicalJson::of($document));
        $now = Sides::each(static fn(Side $side): RepeatsPolicy => $plan->side($side)->repeats);
        $told = [
            'now' => $now->map(static fn(RepeatsPolicy $policy): array => $policy->toArray())->named(),
        ];
        $pair = array_values(array_filter($plan->columnPairs, static fn(ColumnPair $one): bool => $one->source === $stake))[0] ?? null;
        $worth = $pair === null ? null : ['source' => $pair->source, 'target' => $pair->target];
        $policies = $policies === [] ? [$told['now']] : $policies;
        $json = CanonicalJson::of(self::withoutPolicies($document));
        try {
            foreach ($policies as $one) {
                $tried = Plan::fromJson(PoliciesTried::planWith($json, $one));
                $this->mustBeAllowed($plan, $tried, $worth, $masks);
            }
        } catch (NineTallyException $problem) {
            return ['isWaiting' => false, 'done' => 0, 'total' => 0, 'problem' => $problem->getMessage(), ...$told, 'found' => null];
        }
        $answer = $this->answers->to(new PoliciesTried($sides, $json, $policies, $worth));

        return [
            ...$answer->progress(),
            ...$told,
            'found' => $answer->content === null ? null : $this->masked($answer->content, $masks),
        ];
    }

    /**
     * @param  array<string, mixed>  $document
     * @return array<string, mixed> the same whatever the plan says of repeats, so that what was tried is not tried again
     */
    private static function withoutPolicies(array $document): array
    {
        /** @var array<string, array<string, mixed>> $sides */
        $sides = $document['sides'] ?? [];

        $sides = array_filter(array_map(static fn(array $rules): array => array_diff_key($rules, ['repeats' => true]), $sides));

        return ($sides === [] ? [] : ['sides' => $sides]) + array_diff_key($document, ['sides' => true]);
    }

    /**
     * Which row has the highest value says something of all of them, and so does a total of some.
     *
     * @param  array{source: string, target: string, ...}|null  $worth
     * @param  Sides<SideMask>  $masks
     */
    private function mustBeAllowed(Plan $plan, Plan $tried, ?array $worth, Sides $masks): void
    {
        foreach (Side::cases() as $side) {
            $masks->of($side)->mustAllow([
                ...array_values(array_diff($tried->side($side)->repeats->namedColumns(), $plan->side($side)->repeats->namedColumns())),
                ...$worth === null ? [] : [$worth[$side->value]],
            ]);
        }
    }

    /**
     * @param  array<string, mixed>  $found
     * @param  Sides<SideMask>  $masks
     * @return array<string, mixed>
     */
    private function masked(array $found, Sides $masks): array
    {
        /**
         * @var array{columns: array{source: list<string>, target: list<string>}, beside: array{groups: list<array<string,
         *     array{rows: list<ShownRow>, ...}>>, ...}|null} $found
         */
        if ($found['beside'] === null) {
            return $found;
        }
        $columns = $found['columns'];

        return [
            ...$found,
            'beside' => [
                ...$found['beside'],
                'groups' => array_map(static function (array $group) use ($columns, $masks): array {
                    foreach (Side::cases() as $side) {
                        $group[$side->value]['rows'] = $masks
                            ->of($side)
                            ->ofPrepared()
                            ->rows($columns[$side->value], $group[$side->value]['rows']);
                    }

                    return $group;
                }, $found['beside']['groups']),
        ]];
    }
}
