<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Limits\Limit;
use NineTally\Core\Preparation\StepCatalogue;
use NineTally\Core\Preparation\UnusableStep;
use NineTally\Core\Records\RequiredRecord;
use NineTally\Core\Repeats\ChosenRow;
use NineTally\Core\Repeats\DifferingPolicy;
use NineTally\Core\Repeats\RepeatsPolicy;
use NineTally\Core\Row\Side;
use NineTally\Core\Totals\ControlTotal;

/**
 * What changed from one plan to another, in words: key, pairs, their rules, steps, and what sides declare.
 *
 * @phpstan-import-type StepDocument from StepCatalogue
 */
final readonly class PlanChanges
{
    /** @return list<string> empty when both do the same */
    public function between(Plan $before, Plan $after): array
    {
        $changes = [];
        if ($before->keyDefinition() !== $after->keyDefinition()) {
            $changes[] = sprintf('the key was %s and is %s', $this->key($before), $this->key($after));
        }
        $changes = [...$changes, ...$this->pairs($before, $after)];
        foreach (Side::cases() as $side) {
            $changes = [
                ...$changes,
                ...$this->names("left out of the {$side->value}", $before->leftOut[$side->value], $after->leftOut[$side->value]),
                ...$this->names(
                    "sensitive in the {$side->value}",
                    $before->columnRules->sensitive[$side->value],
                    $after->columnRules->sensitive[$side->value],
                ),
                ...$this->steps($before, $after, $side),
                ...$this->declared($before, $after, $side),
            ];
        }
        $changes = [
            ...$changes,
            ...$this->bridges('bridge', $before->bridges->confirmed, $after->bridges->confirmed),
            ...$this->bridges('refused bridge', $before->bridges->refused, $after->bridges->refused),
            ...$this->bridges('row chosen by hand', $before->keptRows(), $after->keptRows()),
            ...$before->bridges->equivalents === $after->bridges->equivalents ? [] : ['words that mean the same changed'],
        ];
        foreach (array_unique([...array_keys($before->columnRules->demands), ...array_keys($after->columnRules->demands)]) as $column) {
            if (($before->columnRules->demands[$column] ?? []) !== ($after->columnRules->demands[$column] ?? [])) {
                $changes[] = isset($after->columnRules->demands[$column])
                    ? "what the target demands of {$column} changed"
                    : "the target demands nothing of {$column} any more";
            }
        }

        $written = static fn(Plan $plan): array => array_map(
            static fn(ControlTotal $total): string => $total->sentence(),
            $plan->columnRules->totals,
        );
        $changes = [...$changes, ...$this->names('a control total', $written($before), $written($after))];
        $required = static fn(Plan $plan): array => array_map(
            static fn(RequiredRecord $rule): string => $rule->sentence(),
            $plan->columnRules->records,
        );
        $changes = [...$changes, ...$this->names('a rule', $required($before), $required($after))];
        $limits = static fn(Plan $plan): array => array_map(
            static fn(Limit $limit): string => $limit->sentence($limit->of ?? ''),
            $plan->columnRules->limits,
        );
        $changes = [...$changes, ...$this->names('a limit', $limits($before), $limits($after))];
        if ($before->columnRules->defaultForgives !== $after->columnRules->defaultForgives) {
            $changes[] = sprintf(
                'a new pair forgives %s, and forgave %s',
                implode(', ', $after->columnRules->defaultForgives) ?: 'nothing',
                implode(', ', $before->columnRules->defaultForgives) ?: 'nothing',
            );
        }

        return $changes;
    }

    private function key(Plan $plan): string
    {
        return implode(
            ' + ',
            array_map(
                static fn(KeyColumn $column): string => ($column->source === $column->target
                    ? $column->source
                    : "{$column->source} → {$column->target}").
                    ($column->forgives === [] ? '' : ' (forgives '.implode(', ', $column->forgives).')'),
                $plan->key,
            ),
        );
    }

    /** @return list<string> */
    private function pairs(Plan $before, Plan $after): array
    {
        [$was, $is] = [array_column($before->columnPairs, null, 'id'), array_column($after->columnPairs, null, 'id')];
        $changes = [
            ...array_map(
                static fn(ColumnPair $pair): string => sprintf('%s is compared with %s', $pair->source, $pair->target),
                array_values(array_diff_key($is, $was)),
            ),
            ...array_map(
                static fn(ColumnPair $pair): string => sprintf('%s is no longer compared with %s', $pair->source, $pair->target),
                array_values(array_diff_key($was, $is)),
            ),
        ];
        foreach (array_intersect_key($is, $was) as $id => $pair) {
            [$old, $new] = [$was[$id]->toArray(), $pair->toArray()];
            foreach (array_unique([...array_keys($old), ...array_keys($new)]) as $rule) {
                if (($old[$rule] ?? null) !== ($new[$rule] ?? null)) {
                    $changes[] = $this->ofRule($pair->source, $rule, $old[$rule] ?? null, $new[$rule] ?? null);
                }
            }
        }

        return $changes;
    }

    private function ofRule(string $column, string $rule, mixed $was, mixed $is): string
    {
        $said = fn(mixed $value): string => is_array($value)
            ? ($value === []
                ? 'nothing'
                : implode(
                    ', ',
                    array_map(static fn(mixed $one): string => is_scalar($one) ? (string) $one : CanonicalJson::of($one), $value),
                ))
            : ($value === null
                ? 'nothing'
                : (is_scalar($value)
                    ? (string) $value
                    : ''));

        return match ($rule) {
            'kind' => sprintf('%s is read as %s, no longer as %s', $column, $said($is ?? 'text'), $said($was ?? 'text')),
            'forgives' => sprintf('%s forgives %s, and forgave %s', $column, $said($is), $said($was)),
            'tolerance', 'rounding' => $is === null
                ? sprintf('%s has no %s any more', $column, $rule)
                : sprintf('%s has a %s of %s', $column, $rule, $said(is_array($is) ? array_reverse(array_values($is)) : $is)),
            'crosswalk' => sprintf(
                'the crosswalk of %s has %d entries, and had %d',
                $column,
                is_array($is) ? count($is) : 0,
                is_array($was) ? count($was) : 0,
            ),
            default => sprintf('%s of %s changed', $rule, $column),
        };
    }

    /**
     * @param  list<string>  $was
     * @param  list<string>  $is
     * @return list<string>
     */
    private function names(string $what, array $was, array $is): array
    {
        return [
            ...array_map(static fn(string $name): string => "{$name} is {$what}", array_values(array_diff($is, $was))),
            ...array_map(static fn(string $name): string => "{$name} is no longer {$what}", array_values(array_diff($was, $is))),
        ];
    }

    /** @return list<string> */
    private function steps(Plan $before, Plan $after, Side $side): array
    {
        [$was, $is] = [$before->side($side)->preparation, $after->side($side)->preparation];
        if ($was->digest() === $is->digest()) {
            return [];
        }
        [$old, $new] = [
            array_map($this->sentence(...), array_values($was->working())),
            array_map($this->sentence(...), array_values($is->working())),
        ];
        $changes = [
            ...array_map(
                static fn(string $step): string => "a step of the {$side->value} is new: {$step}",
                array_values(array_diff($new, $old)),
            ),
            ...array_map(
                static fn(string $step): string => "a step of the {$side->value} is gone: {$step}",
                array_values(array_diff($old, $new)),
            ),
        ];

        return $changes === [] ? ["the steps of the {$side->value} stand in another order"] : $changes;
    }

    /** @param StepDocument $step */
    private function sentence(array $step): string
    {
        try {
            return StepCatalogue::make($step)->sentence();
        } catch (UnusableStep) {
            return $step['kind'];
        }
    }

    /** @return list<string> */
    private function declared(Plan $before, Plan $after, Side $side): array
    {
        [$was, $is] = [$before->side($side), $after->side($side)];

        return array_values(
            array_filter([
                $was->declared != $is->declared ? "how the {$side->value} writes its values changed" : '',
                $was->columns != $is->columns ? "how single columns of the {$side->value} are read changed" : '',
                $was->repeats->toArray() !== $is->repeats->toArray()
                    ? sprintf('repeats of the %s: %s, no longer %s', $side->value, self::policy($is->repeats), self::policy($was->repeats))
                    : '',
            ]),
        );
    }

    private static function policy(RepeatsPolicy $policy): string
    {
        return $policy->id->value.implode('', array_map(
            static fn(DifferingPolicy $own): string => sprintf(
                ' (%s where %s)',
                $own->policy->id->value,
                $own->columns === [] ? 'nothing differs' : implode(', ', $own->columns).' differ',
            ),
            $policy->own,
        ));
    }

    /**
     * @param  list<Bridge>|list<ChosenRow>  $before
     * @param  list<Bridge>|list<ChosenRow>  $after
     * @return list<string>
     */
    private function bridges(string $name, array $before, array $after): array
    {
        $more = count($after) - count($before);

        return match (true) {
            $before == $after => [],
            $more === 0 => ["{$name}s changed"],
            default => [sprintf('%d %s%s %s', abs($more), $name, abs($more) === 1 ? '' : 's', $more > 0 ? 'more' : 'fewer')],
        };
    }
}
