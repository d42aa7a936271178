<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Row\Excerpt;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Value\Kind;

/**
 * References by name, each prepared by its own steps when it is first asked for, and accounted for as a side is.
 *
 * @phpstan-type ReferenceLedger array{name: string, read: int, refused: int, delivered: int, leftOut: int, made: int, condensed: int,
 *     prepared: int, repeatedKeys: int, blankKeys: int, steps: list<array<string, mixed>>}
 */
final class ReferenceShelf implements References
{
    /** @var array<string, ReferenceTable> */
    private array $tables = [];

    /** @var array<string, ReferenceLedger> */
    private array $ledgers = [];

    /** @var array<string, true> those that are being prepared */
    private array $open = [];

    /**
     * @param  array<string, \Closure(): PartStack>  $deliveries  by name; opened when they are asked for
     * @param  array<string, ReferenceRules>  $rules  by name
     * @param  string  $folder  for rows that steps write aside
     * @param  array<string, string>  $parameters
     */
    public function __construct(
        private readonly array $deliveries,
        private readonly array $rules,
        private readonly string $folder,
        private readonly array $parameters = [],
    ) {}

    public function named(string $name): ReferenceTable
    {
        return $this->tables[$name] ??= $this->prepared($name);
    }

    public function ledgers(): array
    {
        return array_values($this->ledgers);
    }

    /** @throws UnusableStep */
    private function prepared(string $name): ReferenceTable
    {
        if (! isset($this->deliveries[$name])) {
            throw UnusableStep::because(sprintf('There is no reference "%s". Add it before you tally.', Excerpt::of($name)));
        }
        if (isset($this->open[$name])) {
            throw UnusableStep::because(
                sprintf('The reference "%s" is looked up from while it is prepared itself. Take one of the two steps out.', $name),
            );
        }
        $this->open[$name] = true;
        $stack = $this->deliveries[$name]();
        $rules = $this->rules[$name] ?? new ReferenceRules;
        $ledger = [
            'columns' => $rules->preparation->columns($stack->columns, "reference {$name}"),
            'deliveredColumns' => $stack->columns,
            'read' => 0,
            'refused' => 0,
            'delivered' => 0,
            'prepared' => 0,
            'steps' => [],
        ];
        /** @var array<int, StepFigures> $figures */
        $figures = [];
        $contextOf = function (int $number) use (&$figures): StepContext {
            return new StepContext($figures[$number] = new StepFigures, $this->folder, $this, $this->parameters);
        };
        $delivered = static function () use ($stack, &$ledger): \Generator {
            foreach ($stack->records() as $packedPlace => $record) {
                $ledger['read']++;
                if ($record instanceof RefusedRecord) {
                    $ledger['refused']++;
                } else {
                    $ledger['delivered']++;
                    yield $packedPlace => $record;
                }
            }
        };
        $table = ReferenceTable::of(
            $name,
            $ledger['columns'],
            $rules->preparation->run($delivered(), $stack->columns, $contextOf, "reference {$name}"),
            $rules->preparation->formsBehind(),
        );
        $ledger['prepared'] = count($table->rows);
        foreach ($rules->preparation->working() as $number => $document) {
            $ledger['steps'][] = [
                'number' => $number,
                'id' => $document['id'],
                'kind' => $document['kind'],
                'sentence' => StepCatalogue::make($document)->sentence(),
                'columns' => [],
                'figures' => ($figures[$number] ?? new StepFigures)->toArray(),
            ];
        }
        $account = PreparationLedger::of($ledger);
        $account->mustHold();
        [$repeated, $blank] = $this->keys($table, $rules->key);
        $this->ledgers[$name] = [
            'name' => $name,
            'read' => $account->read,
            'refused' => $account->refused,
            'delivered' => $account->delivered,
            'leftOut' => $account->leftOut(),
            'made' => $account->made(),
            'condensed' => $account->condensed(),
            'prepared' => $account->prepared,
            'repeatedKeys' => $repeated,
            'blankKeys' => $blank,
            'steps' => $account->steps,
        ];
        unset($this->open[$name]);

        return $table;
    }

    /**
     * @param  list<string>  $names
     * @return array{int, int} keys of several records, and records without a key
     */
    private function keys(ReferenceTable $table, array $names): array
    {
        if ($names === []) {
            return [0, 0];
        }
        $places = $table->places($names);
        $readings = array_map(static fn(string $name): \NineTally\Core\Value\Reading => $table->forms->reading($name, Kind::Text), $names);
        $counts = [];
        $blank = 0;
        foreach ($table->rows as $cells) {
            $key = array_map(
                static fn(int $place, \NineTally\Core\Value\Reading $reading): string => $reading->isBlank($cells[$place])
                    ? ''
                    : $cells[$place],
                $places,
                $readings,
            );
            $joined = implode(Batch::CELL_END, $key);
            if (implode('', $key) === '') {
                $blank++;
            } else {
                $counts[$joined] = ($counts[$joined] ?? 0) + 1;
            }
        }

        return [count(array_filter($counts, static fn(int $rows): bool => $rows > 1)), $blank];
    }
}
