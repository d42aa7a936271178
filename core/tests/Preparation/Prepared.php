<?php

declare(strict_types=1);

namespace NineTally\Tests\Preparation;

use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Preparation\NoReferences;
use NineTally\Core\Preparation\Preparation;
use NineTally\Core\Preparation\References;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Preparation\StepFigures;
use NineTally\Tests\TemporaryFiles;

/** Runs steps, which come by way of a plan, so that the schema has seen them. */
trait Prepared
{
    use TemporaryFiles;

    /** @var array<int, StepFigures> by step, of the last run */
    private array $figures = [];

    /** @var list<array{int, list<string>}> packed place and cells of rows that the last run left out */
    private array $leftOut = [];

    /** @param array<string, mixed> ...$steps */
    private function preparationOf(array ...$steps): Preparation
    {
        $numbered = [];
        foreach (array_values($steps) as $nth => $step) {
            $numbered[] = ['id' => "step-{$nth}", ...$step];
        }

        return Plan::fromJson(
            CanonicalJson::of([
                'formatVersion' => 3,
                'key' => [['source' => 'k', 'target' => 'k']],
                'columnPairs' => [],
                'sides' => ['source' => ['preparation' => $numbered]],
            ]),
        )->source->preparation;
    }

    /**
     * @param  list<string>  $columns
     * @param  list<list<string>>  $rows  their packed places are 1, 2, 3 …
     * @param  array<string, string>  $parameters
     * @return list<list<string>> the columns, then the rows
     */
    private function prepared(
        Preparation $preparation,
        array $columns,
        array $rows,
        References $references = new NoReferences,
        array $parameters = [],
    ): array {
        $this->figures = $this->leftOut = [];
        $contextOf = function (int $number) use ($references, $parameters): StepContext {
            return new StepContext(
                ($this->figures[$number] = new StepFigures),
                $this->folder('groups'),
                $references,
                $parameters,
                function (int $packedPlace, array $cells): void {
                    $this->leftOut[] = [$packedPlace, array_map(strval(...), $cells)];
                },
            );
        };
        $delivered = static function () use ($rows): \Generator {
            foreach ($rows as $nth => $cells) {
                yield $nth + 1 => $cells;
            }
        };
        $made = [];
        foreach ($preparation->run($delivered(), $columns, $contextOf) as $cells) {
            $made[] = $cells;
        }
        foreach ($this->figures as $number => $figures) {
            self::assertTrue($figures->addsUp(), "The ledger of step {$number} does not add up: ".json_encode($figures->toArray()));
        }

        return [$preparation->columns($columns), ...$made];
    }
}
