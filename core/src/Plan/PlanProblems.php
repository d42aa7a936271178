<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Repeats\PolicyId;
use NineTally\Core\Row\Counted;
use NineTally\Core\Row\Side;
use NineTally\Core\Value\Currency;
use NineTally\Core\Value\Kind;

/** What is wrong with a plan whatever the deliveries are. */
final readonly class PlanProblems
{
    public function __construct(private Plan $plan) {}

    /** @return list<Problem> each with its place in the document */
    public function all(): array
    {
        $problems = [];
        foreach (Side::cases() as $side) {
            $problems = [...$problems, ...$this->plan->side($side)->problems("/sides/{$side->value}")];
            $seen = [];
            foreach (['key' => $this->plan->keyNames($side), 'columnPairs' => $this->plan->pairedNames($side)] as $part => $names) {
                foreach ($names as $position => $name) {
                    // A key column may also be compared with another column; within one part a column stands once.
                    if (isset($seen[$part][$name])) {
                        $problems[] = new Problem(
                            "/{$part}/{$position}/{$side->value}",
                            sprintf(
                                'The %s column "%s" stands twice in the %s. Remove one of them.',
                                $side->value,
                                $name,
                                $part === 'key' ? 'key' : 'column pairs',
                            ),
                        );
                    }
                    $seen[$part][$name] = true;
                }
            }
        }

        foreach ($this->plan->columnRules->records as $position => $record) {
            if (count($record->columns) !== count($record->by)) {
                $problems[] = new Problem(
                    "/records/{$position}/by",
                    sprintf(
                        'This rule looks for records by %d columns, and %d columns need them. Name as many on either side.',
                        count($record->by),
                        count($record->columns),
                    ),
                );
            }
        }
        $limited = [];
        foreach ($this->plan->columnRules->limits as $position => $limit) {
            $problem = isset($limited[$limit->id()]) ? 'This figure has another limit before. Remove one of them.' : $limit->problem();
            $limited[$limit->id()] = true;
            if ($problem !== null) {
                $problems[] = new Problem("/limits/{$position}", $problem);
            }
        }
        foreach ($this->plan->bridges->pairs() as $list => $bridges) {
            foreach ($bridges as $position => $bridge) {
                foreach (['source' => $bridge['source'], 'target' => $bridge['target']] as $side => $cells) {
                    if (count($cells) !== count($this->plan->key)) {
                        $problems[] = new Problem(
                            "/{$list}/{$position}/{$side}",
                            sprintf(
                                'This bridge names %d key cells, and the key has %d. Give one for each key column.',
                                count($cells),
                                count($this->plan->key),
                            ),
                        );
                    }
                }
            }
        }
        $problems = [...$problems, ...$this->choicesThatCannotBe()];
        if (($this->plan->source->repeats->id === PolicyId::PairInOrder) !== ($this->plan->target->repeats->id === PolicyId::PairInOrder)) {
            $problems[] = new Problem(
                '/sides',
                'Rows can be paired in order only when both sides say so. Set the policy "pair-in-order" for both sides, or for none.',
            );
        }

        return [...$problems, ...$this->rulesThatDoNotFitTheirKind()];
    }

    /** @return list<Problem> */
    private function choicesThatCannotBe(): array
    {
        $problems = $first = [];
        foreach ($this->plan->keptRows() as $position => $chosen) {
            if (count($chosen->key) !== count($this->plan->key)) {
                $problems[] = new Problem("/keptRows/{$position}/key", sprintf(
                    'This row was chosen for a key of %s, and the key has %s now. Take the choice out, or choose again.',
                    Counted::of(count($chosen->key), 'column'),
                    Counted::of(count($this->plan->key), 'column'),
                ));
            }
            if (isset($first[$chosen->identity()])) {
                $problems[] = new Problem("/keptRows/{$position}", sprintf(
                    'Two rows of the %s are chosen for one key, by choice %d and %d. Take one of them out.',
                    $chosen->side->value,
                    $first[$chosen->identity()] + 1,
                    $position + 1,
                ));
            }
            $first[$chosen->identity()] ??= $position;
        }

        return $problems;
    }

    /**
     * @return Side|null the side whose times are on a clock in no zone, where those of the other are instants; null where they can be
     *     compared, or the values have to tell
     */
    private function sideOfClockTimes(ColumnPair $pair): ?Side
    {
        [$source, $target] = [
            $this->plan->source->reading($pair->source, Kind::DateTime),
            $this->plan->target->reading($pair->target, Kind::DateTime),
        ];

        return match (true) {
            $source->writesInstants() && $target->writesClockTimes() => Side::Target,
            $target->writesInstants() && $source->writesClockTimes() => Side::Source,
            default => null,
        };
    }

    /** @return array{string, string}|null of both sides; null unless both declare one */
    private function currencies(ColumnPair $pair): ?array
    {
        $source = $this->plan->source->preparation->formsBehind()->declared($pair->source)['currency'] ?? null;
        $target = $this->plan->target->preparation->formsBehind()->declared($pair->target)['currency'] ?? null;

        return $source === null || $target === null ? null : [$source, $target];
    }

    /** @return list<Problem> */
    private function rulesThatDoNotFitTheirKind(): array
    {
        $problems = [];
        foreach ($this->plan->columnPairs as $position => $pair) {
            $isOfTime = in_array($pair->tolerance?->by, ['days', 'seconds'], true);
            if ($pair->tolerance !== null && ! in_array($pair->kind, $isOfTime ? [Kind::Date, Kind::DateTime] : [Kind::Number], true)) {
                $problems[] = new Problem(
                    "/columnPairs/{$position}/tolerance",
                    sprintf(
                        'A tolerance in %s needs a pair of kind %s, and "%s" is of kind %s.',
                        $isOfTime ? $pair->tolerance->by : 'numbers',
                        $isOfTime ? 'date or date-time' : 'number',
                        $pair->source,
                        $pair->kind->value,
                    ),
                );
            }
            if ($pair->kind === Kind::DateTime && ($side = $this->sideOfClockTimes($pair)) !== null) {
                $problems[] = new Problem(
                    "/columnPairs/{$position}/kind",
                    sprintf(
                        'The times of "%s" cannot be compared: those of the %s are instants, and those of the %s are times on a clock in '.
                            'no zone. Declare the zone of the %s, such as Europe/London.',
                        $pair->source,
                        $side->other()->value,
                        $side->value,
                        $side->value,
                    ),
                );
            }
            $currencies = $pair->kind === Kind::Number ? $this->currencies($pair) : null;
            if ($currencies !== null && ! Currency::areOne(...$currencies)) {
                $problems[] = new Problem(
                    "/columnPairs/{$position}/kind",
                    sprintf(
                        'The amounts of "%s" cannot be compared: the source has them in %s and the target in %s, and nothing is '.
                            'converted. Declare one currency for both, or compute the amounts of one side in the currency of the other in '.
                            'Prepare.',
                        $pair->source,
                        ...$currencies,
                    ),
                );
            }
            if ($pair->rounding !== null && $pair->kind !== Kind::Number) {
                $problems[] = new Problem(
                    "/columnPairs/{$position}/rounding",
                    sprintf('A rounding needs a pair of kind number, and "%s" is of kind %s.', $pair->source, $pair->kind->value),
                );
            }
        }

        return $problems;
    }
}
