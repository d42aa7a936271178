<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\Formula\Formula;
use NineTally\Core\Preparation\Formula\FormulaError;
use NineTally\Core\Preparation\RowByRow;
use NineTally\Core\Preparation\RowCursor;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

/** A column whose cells are computed: a new one at the end, or one that is there and gets new values. */
final class ComputeColumn extends RowByRow
{
    public const ERROR = 'error';

    /** @param bool $takesBlanks a blank cell goes into the formula; else the result is blank */
    public function __construct(private readonly string $into, private readonly string $formula, private readonly bool $takesBlanks) {}

    public function columns(array $columns): array
    {
        $places = ColumnIndex::of($columns);
        Formula::of($this->formula, $places, $columns);

        return $places->has($this->into) ? $columns : [...$columns, $this->into];
    }

    public function sentence(): string
    {
        return "{$this->into} is {$this->formula}";
    }

    protected function bind(array $columns, StepContext $context): \Closure
    {
        $places = ColumnIndex::of($columns);
        $formula = Formula::of($this->formula, $places, $columns, $context);
        $readings = array_map(static fn(string $column): Reading => $context->reading($column, Kind::Text), $columns);
        $needed = $this->takesBlanks ? [] : $formula->places();
        $place = $places->has($this->into) ? $places->at($this->into) : count($columns);
        [$figures, $into] = [$context->figures, $this->into];

        return static function (RowCursor $row) use ($formula, $needed, $place, $figures, $into, $readings): array {
            $cells = $row->cells;
            $value = null;
            foreach ($needed as $cell) {
                if ($readings[$cell]->isBlank($cells[$cell])) {
                    $value = '';
                    break;
                }
            }
            if ($value === null) {
                try {
                    $value = $formula->valueOf($row);
                } catch (FormulaError $error) {
                    $figures->note(self::ERROR, $error->getMessage());
                    $value = '';
                }
            }
            if (($cells[$place] ?? '') !== $value) {
                $figures->alter($into);
            }
            $cells[$place] = $value;

            return array_values($cells);
        };
    }
}
