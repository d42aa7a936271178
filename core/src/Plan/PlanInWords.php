<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Repeats\DifferingPolicy;
use NineTally\Core\Repeats\PolicyId;
use NineTally\Core\Repeats\RepeatsPolicy;
use NineTally\Core\Row\Counted;
use NineTally\Core\Row\Side;
use NineTally\Core\Value\DeclaredInWords;

/**
 * What a plan does, for somebody who reads no plan: which row is which, what must be equal and what may differ, and how values are read.
 * Steps, totals, references and limits stand elsewhere with their figures. Of crosswalks and bridges the sizes are said.
 *
 */
final readonly class PlanInWords
{
    private const OWN_POLICIES = [
        PolicyId::SetAside->value => 'none',
        PolicyId::KeepFirst->value => 'the first',
        PolicyId::KeepLast->value => 'the last',
        PolicyId::KeepHighest->value => 'the one with the highest or latest %s',
        PolicyId::KeepLowest->value => 'the one with the lowest or earliest %s',
        PolicyId::CollapseCopies->value => 'one of copies, and else none',
        PolicyId::PairInOrder->value => 'each, in order',
    ];

    private const POLICIES = [
        PolicyId::SetAside->value => 'all rows that share a key are listed, and none is compared',
        PolicyId::KeepFirst->value => 'of rows that share a key the first is compared, the others are listed',
        PolicyId::KeepLast->value => 'of rows that share a key the last is compared, the others are listed',
        PolicyId::KeepHighest->value => 'of rows that share a key the one with the highest or latest %s is compared, the others are listed',
        PolicyId::KeepLowest->value => 'of rows that share a key the one with the lowest or earliest %s is compared, the others are listed',
        PolicyId::CollapseCopies->value => 'rows that are equal in every column become one; '.
            'others that share a key are listed, and not compared',
        PolicyId::PairInOrder->value => 'of rows that share a key the first meets the first, the second the second; '.
            'what is over is missing or extra',
    ];

    public function __construct(private Plan $plan) {}

    /** @return list<array{name: string, rule: string}> the columns of the key, and what is forgiven in them */
    public function key(): array
    {
        return array_map(static fn(KeyColumn $column): array => [
            'name' => self::name($column->source, $column->target),
            'rule' => self::forgiving($column->forgives),
        ], $this->plan->key);
    }

    /** @return list<array{name: string, rule: string}> what must be equal, as what it is read, and what may differ */
    public function pairs(): array
    {
        return array_map(static fn(ColumnPair $pair): array => [
            'name' => self::name($pair->source, $pair->target),
            'rule' => implode('; ', array_filter([
                $pair->kind->noun(),
                $pair->forgives === [] ? '' : self::forgiving($pair->forgives),
                $pair->tolerance === null ? '' : self::within($pair->tolerance->by, (string) $pair->tolerance->most),
                $pair->rounding === null
                    ? ''
                    : Counted::of($pair->rounding->places, 'decimal place')." on one side, {$pair->rounding->mode}",
                $pair->crosswalk === [] ? '' : 'by a crosswalk of '.Counted::of(count($pair->crosswalk), 'line'),
            ])),
        ], $this->plan->columnPairs);
    }

    /** What becomes of rows of a side that share a key. */
    public function repeats(Side $side): string
    {
        $policy = $this->plan->side($side)->repeats;

        $chosen = count($this->plan->side($side)->keptRows);

        return sprintf(self::POLICIES[$policy->id->value], $policy->column ?? '').self::deciding($policy).
            implode('', array_map(self::own(...), $policy->own)).
            ($chosen === 0 ? '' : '; for '.Counted::of($chosen, 'key').' the row was chosen by hand');
    }

    private static function own(DifferingPolicy $own): string
    {
        return sprintf(
            '; of those that differ in %s %s',
            $own->columns === [] ? 'nothing' : implode(', ', $own->columns).' alone',
            sprintf(self::OWN_POLICIES[$own->policy->id->value], $own->policy->column ?? '').self::deciding($own->policy),
        );
    }

    /** @return list<string> how values of a side are written, where something was said of it */
    public function forms(Side $side): array
    {
        $rules = $this->plan->side($side);
        $forms = DeclaredInWords::of($rules->declared);
        foreach ($rules->columns as $column => $declared) {
            foreach (DeclaredInWords::of($declared) as $form) {
                $forms[] = "in {$column}: {$form}";
            }
        }

        return $forms;
    }

    public function bridges(): int
    {
        return count($this->plan->bridges->confirmed);
    }

    private static function deciding(RepeatsPolicy $policy): string
    {
        return match (true) {
            $policy->then !== null => ", and where they are equal in it, {$policy->then->column} decides",
            $policy->except !== [] => ' (they may differ in '.implode(', ', $policy->except).')',
            default => '',
        };
    }

    private static function name(string $source, string $target): string
    {
        return $source === $target ? $source : "{$source} → {$target}";
    }

    /** @param list<string> $causes */
    private static function forgiving(array $causes): string
    {
        return $causes === [] ? 'nothing is forgiven' : 'forgiven: '.str_replace('-', ' ', implode(', ', $causes));
    }

    private static function within(string $by, string $most): string
    {
        return match ($by) {
            'relative' => "within {$most} of the source, as a part",
            'days' => "within {$most} ".($most === '1' ? 'day' : 'days'),
            'seconds' => "within {$most} ".($most === '1' ? 'second' : 'seconds'),
            default => "within {$most}",
        };
    }
}
