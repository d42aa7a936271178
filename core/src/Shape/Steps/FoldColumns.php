<?php

declare(strict_types=1);

namespace NineTally\Core\Shape\Steps;

use NineTally\Core\Shape\ColumnIndex;
use NineTally\Core\Shape\Step;
use NineTally\Core\Shape\StepContext;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

/** One row for each of some columns: a wide table with a column for each month becomes a long one with a row for each. */
final readonly class FoldColumns implements Step
{
    /** @param non-empty-list<string> $chosen */
    public function __construct(private array $chosen, private string $namesInto, private string $valuesInto, private bool $keepsBlanks) {}

    public function columns(array $columns): array
    {
        $folded = ColumnIndex::of($columns)->all($this->chosen);
        $rest = array_values(array_diff_key($columns, array_flip($folded)));
        ColumnIndex::of($rest)->mustBeFree([$this->namesInto, $this->valuesInto]);

        return [...$rest, $this->namesInto, $this->valuesInto];
    }

    public function sentence(): string
    {
        return 'Fold '.Words::listed($this->chosen)." into {$this->namesInto} and {$this->valuesInto}".($this->keepsBlanks ? '' : ', without blanks');
    }

    public function run(iterable $rows, array $columns, StepContext $context): \Generator
    {
        $folded = ColumnIndex::of($columns)->all($this->chosen);
        $dropped = array_flip($folded);
        $figures = $context->figures;
        $readings = array_map(static fn(string $column): Reading => $context->reading($column, Kind::Text), $this->chosen);
        foreach ($rows as $origin => $cells) {
            $figures->in++;
            $rest = array_values(array_diff_key($cells, $dropped));
            $made = 0;
            foreach ($folded as $nth => $place) {
                if ($this->keepsBlanks || ! $readings[$nth]->isBlank($cells[$place])) {
                    $made++;
                    yield $origin => [...$rest, $this->chosen[$nth], $cells[$place]];
                }
            }
            $figures->out += $made;
            // The row became these; one that became none is left out.
            if ($made === 0) {
                $context->leaveOut($origin, $cells);
            } else {
                $figures->made += $made - 1;
            }
        }
    }
}
