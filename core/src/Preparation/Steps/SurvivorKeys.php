<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Cause\CanonicalForm;
use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Preparation\ReferenceTable;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Preparation\UnusableStep;
use NineTally\Core\Value\DeclaredForms;
use NineTally\Core\Value\Kind;

/** Where a step has it from which key went into which: a reference, or entries of its own. */
final readonly class SurvivorKeys
{
    /**
     * @param  non-empty-list<string>  $key  columns here
     * @param  array{reference: string, from: non-empty-list<string>, into: non-empty-list<string>}|null  $table  where the map is a
     *     reference: its columns of the key and of the survivor's key, in the order of the key
     * @param  list<array{source: string, target: string}>  $entries  where it stands in the step
     * @param  list<string>  $forgives  causes of form, between the map and rows
     */
    private function __construct(public array $key, private ?array $table, private array $entries, private array $forgives) {}

    /**
     * @param  list<array{source: string, target: string}>  $entries  of a key of one column
     * @param  list<string>  $forgives
     */
    public static function ofEntries(string $column, array $entries, array $forgives = []): self
    {
        return new self([$column], null, $entries, $forgives);
    }

    /**
     * As a step says it by the columns that meet and those that are taken.
     *
     * @param  list<array{column: string, reference: string}>  $on
     * @param  list<array{reference: string, into: string}>  $take
     * @param  list<string>  $forgives
     *
     * @throws UnusableStep when the survivor's key does not go where the key stands
     */
    public static function ofReference(string $reference, array $on, array $take, array $forgives = []): self
    {
        $taken = array_column($take, 'reference', 'into');
        $key = $from = $into = [];
        foreach ($on as ['column' => $name, 'reference' => $there]) {
            [$key[], $from[]] = [$name, $there];
            $into[] = $taken[$name] ?? throw UnusableStep::because(sprintf(
                'Nothing of the survivor\'s key goes into "%s". Say for each column of the key where the reference has it.',
                $name,
            ));
        }

        return $key === []
            ? throw UnusableStep::because(
                sprintf('Say which columns of the key are which of the old key in "%s", and where it has the new one.', $reference),
            )
            : new self($key, ['reference' => $reference, 'from' => $from, 'into' => $into], [], $forgives);
    }

    public function said(): string
    {
        return match (true) {
            $this->table !== null => "{$this->table['reference']} says",
            count($this->entries) === 1 => '1 entry says',
            default => count($this->entries).' entries say',
        };
    }

    /** @return list<CanonicalForm> of the key here */
    public function forms(StepContext $context): array
    {
        return $this->formsOf($this->key, $context->forms ?? DeclaredForms::none());
    }

    /** @throws UnusableStep */
    public function map(StepContext $context): SurvivorMap
    {
        if ($this->table === null) {
            $here = $this->forms($context);

            return SurvivorMap::of($this->written(), $here, $here);
        }
        $table = $context->references->named($this->table['reference']);

        return SurvivorMap::of(
            self::delivered($table, $table->places($this->table['from']), $table->places($this->table['into'])),
            $this->formsOf($this->table['from'], $table->forms),
            $this->formsOf($this->table['into'], $table->forms),
        );
    }

    /** @return \Generator<string, array{list<string>, list<string>}> */
    private function written(): \Generator
    {
        foreach ($this->entries as $nth => ['source' => $key, 'target' => $survivor]) {
            yield 'entry '.($nth + 1) => [[$key], [$survivor]];
        }
    }

    /**
     * @param  list<int>  $from
     * @param  list<int>  $into
     * @return \Generator<string, array{list<string>, list<string>}>
     */
    private static function delivered(ReferenceTable $table, array $from, array $into): \Generator
    {
        foreach ($table->rows as $row => $cells) {
            yield $table->placeOf($row) => [
                array_map(static fn(int $place): string => $cells[$place], $from),
                array_map(static fn(int $place): string => $cells[$place], $into),
            ];
        }
    }

    /**
     * @param  list<string>  $columns
     * @return list<CanonicalForm>
     */
    private function formsOf(array $columns, DeclaredForms $declared): array
    {
        $combination = (new CauseCatalogue)->forms;

        return array_map(
            fn(string $column): CanonicalForm => new CanonicalForm($declared->reading($column, Kind::Text), $this->forgives, $combination),
            $columns,
        );
    }
}
