<?php

declare(strict_types=1);

namespace App\Queries\Sign;

use App\Models\Dataset;
use App\Models\Pattern;
use App\Models\PlanDraft;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Limits\LimitFigure;
use NineTally\Core\Limits\LimitScope;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Side;

/**
 * What limits can be set on in a dataset: every figure, and what each can be narrowed to there.
 *
 * @phpstan-type Choice array{figure: string, words: string, unit: string, isAtLeast: bool, needsScope: bool, of: list<array{of: string,
 *     words: string}>}
 */
final readonly class LimitChoices
{
    /** @return list<Choice> */
    public function of(Dataset $dataset): array
    {
        $draft = $dataset->draftNow();
        $plan = $draft === null ? null : PlanDraft::planOf($draft->document);
        $scopes = [];
        foreach (LimitScope::cases() as $scope) {
            $scopes[$scope->value] = $plan === null ? [] : $this->scope($scope, $dataset, $plan);
        }

        return array_map(static fn(LimitFigure $figure): array => [
            ...self::figure($figure),
            'of' => $figure->scope() === null ? [] : $scopes[$figure->scope()->value],
        ], LimitFigure::cases());
    }

    /** @return list<Choice> for a migration as a whole: figures that need no narrowing, and none is narrowed */
    public static function ofMigration(): array
    {
        $whole = array_filter(LimitFigure::cases(), static fn(LimitFigure $figure): bool => ! $figure->needsScope());

        return array_map(static fn(LimitFigure $figure): array => [...self::figure($figure), 'of' => []], array_values($whole));
    }

    /** @return array{figure: string, words: string, unit: string, isAtLeast: bool, needsScope: bool} */
    private static function figure(LimitFigure $figure): array
    {
        return [
            'figure' => $figure->value,
            'words' => $figure->words(),
            'unit' => $figure->unit()->value,
            'isAtLeast' => $figure->isAtLeast(),
            'needsScope' => $figure->needsScope(),
        ];
    }

    /** @return list<array{of: string, words: string}> */
    private function scope(LimitScope $scope, Dataset $dataset, Plan $plan): array
    {
        $choices = [];
        foreach ($plan->columnPairs as $pair) {
            $pairs[$pair->id] = $pair->source === $pair->target ? $pair->source : "{$pair->source} → {$pair->target}";
        }
        $choices = match ($scope) {
            LimitScope::Pair => $pairs ?? [],
            LimitScope::Pattern => $this->patterns($dataset, $pairs ?? []),
            LimitScope::Cause => array_combine(
                array_column(CauseId::cases(), 'value'),
                array_map(static fn(CauseId $cause): string => CauseId::sentenceFor($cause->value), CauseId::cases()),
            ),
            LimitScope::Part => $this->parts($dataset),
            LimitScope::SidePart => $this->sideParts($dataset),
            LimitScope::Step => $this->steps($plan),
            LimitScope::Total => $this->sentences($plan->columnRules->totals),
            LimitScope::Record => $this->sentences($plan->columnRules->records),
        };

        return array_map(
            static fn(int|string $of, string $words): array => ['of' => (string) $of, 'words' => $words],
            array_keys($choices),
            $choices,
        );
    }

    /**
     * @param  array<string, string>  $pairs
     * @return array<string, string> what differs in the newest tally
     */
    private function patterns(Dataset $dataset, array $pairs): array
    {
        $patterns = [];
        $tally = $dataset->latestTally();
        foreach ($tally === null ? [] : Pattern::query()->where('tally_id', $tally->id)->orderByDesc('cells')->get() as $pattern) {
            if (isset($pairs[$pattern->pair_id])) {
                $patterns["{$pattern->pair_id} {$pattern->cause}"] ??= $pairs[$pattern->pair_id].': '.CauseId::sentenceFor($pattern->cause);
            }
        }

        return $patterns;
    }

    /** @return array<int, string> */
    private function parts(Dataset $dataset): array
    {
        $parts = [];
        foreach (Side::cases() as $side) {
            $delivery = $dataset->latestDelivery($side)?->load('parts');
            foreach ($delivery !== null && $delivery->parts->count() > 1 ? $delivery->parts : [] as $part) {
                $parts[$part->number] = ($parts[$part->number] ?? "part {$part->number}").", {$part->file_name}";
            }
        }
        ksort($parts);

        return $parts;
    }

    /** @return array<string, string> */
    private function sideParts(Dataset $dataset): array
    {
        $parts = [];
        foreach (Side::cases() as $side) {
            $delivery = $dataset->latestDelivery($side)?->load('parts');
            foreach ($delivery !== null && $delivery->parts->count() > 1 ? $delivery->parts : [] as $part) {
                $parts["{$side->value} {$part->number}"] = "part {$part->number} of the {$side->value}, {$part->file_name}";
            }
        }

        return $parts;
    }

    /** @return array<string, string> steps that leave rows out */
    private function steps(Plan $plan): array
    {
        $steps = [];
        foreach (Side::cases() as $side) {
            foreach ($plan->side($side)->preparation->steps as $place => $step) {
                if (in_array($step['kind'], ['keep-rows', 'leave-out-rows', 'leave-out-blank-rows'], true)) {
                    // Not by its reason or its condition: they may hold what somebody may not see.
                    $steps["{$side->value} {$step['id']}"] =
                        sprintf('step %d of the %s: %s', $place + 1, $side->value, str_replace('-', ' ', $step['kind']));
                }
            }
        }

        return $steps;
    }

    /**
     * @param  list<\NineTally\Core\Totals\ControlTotal>|list<\NineTally\Core\Records\RequiredRecord>  $rules
     * @return array<string, string>
     */
    private function sentences(array $rules): array
    {
        $sentences = array_map(static fn($rule): string => $rule->sentence(), $rules);

        return array_combine($sentences, $sentences);
    }
}
