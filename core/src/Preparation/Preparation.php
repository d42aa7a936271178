<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

use NineTally\Core\Preparation\Steps\AsMatched;
use NineTally\Core\Value\DeclaredForms;

/**
 * The ordered steps that prepare a side before matching. They never touch the delivery.
 *
 * @phpstan-import-type StepDocument from StepCatalogue
 */
final readonly class Preparation
{
    public DeclaredForms $declared;

    /**
     * @param  list<StepDocument>  $steps  as the plan writes them, with those that are switched off
     * @param  DeclaredForms|null  $declared  what the side declares about its values
     * @param  array<string, ReferenceRules>  $referenceRules  by name of the reference
     */
    public function __construct(public array $steps = [], ?DeclaredForms $declared = null, public array $referenceRules = [])
    {
        $this->declared = $declared ?? DeclaredForms::none();
    }

    /** The same steps under other declarations. */
    public function under(DeclaredForms $declared): self
    {
        return new self($this->steps, $declared, $this->referenceRules);
    }

    /** @param list<StepDocument> $steps that run behind these */
    public function followedBy(array $steps): self
    {
        return new self([...$this->steps, ...$steps], $this->declared, $this->referenceRules);
    }

    /** The steps before one of them; all where there is no such step. */
    public function before(?string $id): self
    {
        $place = array_search($id, array_column($this->steps, 'id'), true);

        return $place === false ? $this : new self(array_slice($this->steps, 0, $place), $this->declared, $this->referenceRules);
    }

    /** The number among the working steps that a step has, or would have if it were switched on. */
    public function numberOf(?string $id): int
    {
        return $this->before($id) === $this ? PHP_INT_MAX : count($this->before($id)->working()) + 1;
    }

    /** What is declared about the values that come into a step; behind the last one where there is no such step. */
    public function formsInto(int $number): DeclaredForms
    {
        if ($this->declared->isEmpty()) {
            return $this->declared;
        }
        $names = $written = [];
        foreach ($this->working() as $at => $step) {
            if ($at < $number) {
                $written = WrittenColumns::after($step, $written);
            }
        }
        foreach (array_reverse($this->working(), preserve_keys: true) as $at => $step) {
            if ($at >= $number && $step['kind'] === 'rename-columns') {
                $before = $names;
                foreach ($step['names'] ?? [] as ['from' => $from, 'to' => $to]) {
                    $before[$from] = $names[$to] ?? $to;
                }
                $names = $before;
            }
        }

        return $this->declared->at($names, $written);
    }

    public function formsBehind(): DeclaredForms
    {
        return $this->formsInto(PHP_INT_MAX);
    }

    /** Whether a working step speaks of a column by this name. */
    public function mentions(string $column): bool
    {
        $isMentioned = false;
        $steps = $this->working();
        array_walk_recursive($steps, static function (mixed $said, int|string $member) use ($column, &$isMentioned): void {
            $isMentioned = $isMentioned || $said === $column || ($member === 'formula' && is_string($said) && str_contains($said, $column));
        });

        return $isMentioned;
    }

    public function isEmpty(): bool
    {
        return $this->working() === [];
    }

    /** @return array<int, StepDocument> number, from 1 => step; without those that are switched off */
    public function working(): array
    {
        $working = [];
        foreach ($this->steps as $position => $step) {
            if (($step['off'] ?? false) === false) {
                $working[$position + 1] = $step;
            }
        }

        return $working;
    }

    /**
     * The columns of the prepared side.
     *
     * @param  list<string>  $columns  as delivered
     * @return list<string>
     *
     * @throws UnusableStep with the number of the step
     */
    public function columns(array $columns, string $side = 'side'): array
    {
        foreach ($this->working() as $number => $document) {
            $sentence = $document['kind'];
            try {
                $step = StepCatalogue::make($document);
                $sentence = $step->sentence();
                $columns = $step->columns($columns);
                if ($columns === []) {
                    throw UnusableStep::because('It leaves no column.');
                }
            } catch (UnusableStep $problem) {
                throw $problem->at($side, $number, $sentence);
            }
        }

        return $columns;
    }

    /**
     * @param  iterable<int, list<string>>  $rows
     * @param  list<string>  $columns
     * @param  \Closure(int, list<string>): StepContext  $contextOf  by the number of the step and the columns that come into it
     * @return \Generator<int, list<string>>
     *
     * @throws UnusableStep with the number of the step
     */
    public function run(iterable $rows, array $columns, \Closure $contextOf, string $side = 'side'): \Generator
    {
        $this->columns($columns, $side);
        foreach ($this->working() as $number => $document) {
            $step = StepCatalogue::make($document);
            $rows = $this->guarded(
                $step->run($rows, $columns, $contextOf($number, $columns)->under($this->formsInto($number))),
                $side,
                $number,
                $step,
            );
            $columns = $step->columns($columns);
        }

        foreach ($rows as $packedPlace => $cells) {
            yield $packedPlace => $cells;
        }
    }

    /**
     * @param  StepDocument  $step
     * @return string the name of the table that it looks up from; empty where it looks up from none
     */
    public static function referenceOf(array $step): string
    {
        $name = $step['reference'] ?? '';

        return $step['kind'] === 'as-matched' ? AsMatched::table($name) : $name;
    }

    /** @return list<string> names of the references that working steps look up from */
    public function references(): array
    {
        $names = $this->ownReferences();
        // What a reference looks up from for its own part is needed too.
        for ($place = 0; $place < count($names); $place++) {
            $rules = $this->referenceRules[$names[$place]] ?? null;
            array_push($names, ...array_diff($rules?->preparation->ownReferences() ?? [], $names));
        }

        return array_values(array_unique($names));
    }

    /** @return list<string> */
    private function ownReferences(): array
    {
        return array_values(array_filter(
            array_map(self::referenceOf(...), $this->working()),
            static fn(string $name): bool => $name !== '',
        ));
    }

    /** @return list<string> names of the parameters that conditions of working steps ask for */
    public function parameters(): array
    {
        $names = [];
        foreach ($this->working() as $step) {
            $condition = $step['condition'] ?? [];
            array_walk_recursive($condition, static function (mixed $value, int|string $name) use (&$names): void {
                if ($name === 'parameter' && is_string($value)) {
                    $names[$value] = true;
                }
            });
        }

        return array_map(strval(...), array_keys($names));
    }

    /** @return string one for all preparations that do the same */
    public function digest(): string
    {
        $steps = array_map(
            static fn(array $step): array => array_diff_key($step, ['id' => true, 'reason' => true, 'answersFor' => true]),
            array_values($this->working()),
        );
        // Without a step nothing is read, whatever is declared.
        $references = array_map(
            static fn(ReferenceRules $rules): string => $rules->digest(),
            array_intersect_key($this->referenceRules, array_flip($this->references())),
        );
        $does =
            $steps === [] || ($this->declared->isEmpty() && $references === [])
                ? $steps
                : ['steps' => $steps, 'declared' => $this->declared->toArray(), 'references' => $references];

        return hash('sha256', json_encode(self::sorted($does), JSON_THROW_ON_ERROR));
    }

    /** The order of an object's members says nothing. */
    private static function sorted(mixed $value): mixed
    {
        if (! is_array($value)) {
            return $value;
        }
        array_is_list($value) || ksort($value);

        return array_map(self::sorted(...), $value);
    }

    /**
     * @param  \Generator<int, list<string>>  $rows
     * @return \Generator<int, list<string>>
     */
    private function guarded(\Generator $rows, string $side, int $number, Step $step): \Generator
    {
        try {
            yield from $rows;
        } catch (UnusableStep $problem) {
            throw str_starts_with($problem->getMessage(), 'Step ') ? $problem : $problem->at($side, $number, $step->sentence());
        }
    }
}
