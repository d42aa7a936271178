<?php

declare(strict_types=1);

namespace NineTally\Tests\Shape;

use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Shape\NoReferences;
use NineTally\Core\Shape\References;
use NineTally\Core\Shape\Shape;
use NineTally\Core\Shape\StepContext;
use NineTally\Core\Shape\StepFigures;
use NineTally\Tests\TemporaryFiles;

/** Runs steps, which come by way of a plan, so that the schema has seen them. */
trait Shaped
{
    use TemporaryFiles;

    /** @var array<int, StepFigures> by step, of the last run */
    private array $figures = [];

    /** @var list<array{int, list<string>}> origin and cells of rows that the last run left out */
    private array $leftOut = [];

    /** @param array<string, mixed> ...$steps */
    private function shapeOf(array ...$steps): Shape
    {
        $numbered = [];
        foreach (array_values($steps) as $nth => $step) {
            $numbered[] = ['id' => "step-{$nth}", ...$step];
        }

        return Plan::fromJson(CanonicalJson::of(['formatVersion' => 2, 'key' => [['source' => 'k', 'target' => 'k']], 'columnPairs' => [], 'sides' => ['source' => ['shape' => $numbered]]]))->source->shape;
    }

    /**
     * @param  list<string>  $columns
     * @param  list<list<string>>  $rows  their origins are 1, 2, 3 …
     * @param  array<string, string>  $parameters
     * @return list<list<string>> the columns, then the rows
     */
    private function shaped(Shape $shape, array $columns, array $rows, References $references = new NoReferences, array $parameters = []): array
    {
        $this->figures = $this->leftOut = [];
        $contextOf = function (int $number) use ($references, $parameters): StepContext {
            return new StepContext($this->figures[$number] = new StepFigures, $this->folder('groups'), $references, $parameters, function (int $origin, array $cells): void {
                $this->leftOut[] = [$origin, array_map(strval(...), $cells)];
            });
        };
        $delivered = static function () use ($rows): \Generator {
            foreach ($rows as $nth => $cells) {
                yield $nth + 1 => $cells;
            }
        };
        $made = [];
        foreach ($shape->run($delivered(), $columns, $contextOf) as $cells) {
            $made[] = $cells;
        }
        foreach ($this->figures as $number => $figures) {
            self::assertTrue($figures->addsUp(), "The ledger of step {$number} does not add up: ".json_encode($figures->toArray()));
        }

        return [$shape->columns($columns), ...$made];
    }
}
