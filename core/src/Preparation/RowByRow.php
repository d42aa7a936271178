<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

/** A step that looks at one row at a time and gives it back, altered or not, or leaves it out. */
abstract class RowByRow implements Step
{
    /**
     * @param  list<string>  $columns
     * @return \Closure(RowCursor): (list<string>|null) null leaves the row out
     */
    abstract protected function bind(array $columns, StepContext $context): \Closure;

    final public function run(iterable $rows, array $columns, StepContext $context): \Generator
    {
        $alter = $this->bind($columns, $context);
        $figures = $context->figures;
        $row = new RowCursor;
        foreach ($rows as $packedPlace => $cells) {
            $figures->in++;
            $row->cells = $cells;
            $after = $alter($row);
            if ($after === null) {
                $context->leaveOut($packedPlace, $cells);
            } else {
                $figures->out++;
                yield $packedPlace => $after;
            }
        }
    }
}
