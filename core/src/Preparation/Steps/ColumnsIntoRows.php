<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\Step;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

/** One row for each of some columns: a wide table with a column for each month becomes a long one with a row for each. */
final readonly class ColumnsIntoRows implements Step
{
    /** @param non-empty-list<string> $chosen */
    public function __construct(private array $chosen, private string $namesInto, private string $valuesInto, private bool $keepsBlanks) {}

    public function columns(array $columns): array
    {
        $turned = ColumnIndex::of($columns)->all($this->chosen);
        $rest = array_values(array_diff_key($columns, array_flip($turned)));
        ColumnIndex::of($rest)->mustBeFree([$this->namesInto, $this->valuesInto]);

        return [...$rest, $this->namesInto, $this->valuesInto];
    }

    public function sentence(): string
    {
        return 'Columns into rows: '.
            Words::listed($this->chosen).
            ", as {$this->namesInto} and {$this->valuesInto}".
            ($this->keepsBlanks ? '' : ', without blanks');
    }

    public function run(iterable $rows, array $columns, StepContext $context): \Generator
    {
        $turned = ColumnIndex::of($columns)->all($this->chosen);
        $places = array_flip($turned);
        $figures = $context->figures;
        $readings = array_map(static fn(string $column): Reading => $context->reading($column, Kind::Text), $this->chosen);
        foreach ($rows as $packedPlace => $cells) {
            $figures->in++;
            $rest = array_values(array_diff_key($cells, $places));
            $made = 0;
            foreach ($turned as $nth => $place) {
                if ($this->keepsBlanks || ! $readings[$nth]->isBlank($cells[$place])) {
                    $made++;
                    yield $packedPlace => [...$rest, $this->chosen[$nth], $cells[$place]];
                }
            }
            $figures->out += $made;
            // The row became these; one that became none is left out.
            if ($made === 0) {
                $context->leaveOut($packedPlace, $cells);
            } else {
                $figures->made += $made - 1;
            }
        }
    }
}
