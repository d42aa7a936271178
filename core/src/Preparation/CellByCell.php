<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

/** A step that alters single cells of chosen columns and nothing else. */
abstract class CellByCell extends RowByRow
{
    /** @param list<string> $chosen names of the columns */
    public function __construct(protected readonly array $chosen) {}

    /** @return \Closure(string): string */
    abstract protected function alteration(string $column, StepContext $context): \Closure;

    final public function columns(array $columns): array
    {
        ColumnIndex::of($columns)->all($this->chosen);

        return $columns;
    }

    final protected function bind(array $columns, StepContext $context): \Closure
    {
        $places = ColumnIndex::of($columns)->all($this->chosen);
        $alterations = [];
        foreach ($this->chosen as $nth => $column) {
            $alterations[$places[$nth]] = $this->alteration($column, $context);
        }
        $figures = $context->figures;

        return static function (RowCursor $row) use ($alterations, $figures, $columns): array {
            $cells = $row->cells;
            foreach ($alterations as $place => $alter) {
                $before = $cells[$place];
                $after = $alter($before);
                if ($after !== $before) {
                    $figures->alter($columns[$place]);
                    $cells[$place] = $after;
                }
            }

            return array_values($cells);
        };
    }
}
