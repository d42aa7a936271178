<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\RowByRow;
use NineTally\Core\Preparation\RowCursor;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Value\Kind;

/** Fills blank cells of some columns with a value, or with the one above in the order of the delivery. */
final class FillBlanks extends RowByRow
{
    /**
     * @param  list<string>  $chosen
     * @param  string|null  $value  null: from above
     */
    public function __construct(private readonly array $chosen, private readonly ?string $value) {}

    public function columns(array $columns): array
    {
        ColumnIndex::of($columns)->all($this->chosen);

        return $columns;
    }

    public function sentence(): string
    {
        return 'Fill blanks of '.Words::listed($this->chosen).($this->value === null ? ' from above' : " with \"{$this->value}\"");
    }

    protected function bind(array $columns, StepContext $context): \Closure
    {
        $places = ColumnIndex::of($columns)->all($this->chosen);
        $figures = $context->figures;
        $above = array_fill_keys($places, $this->value ?? '');
        $fromAbove = $this->value === null;
        $readings = [];
        foreach ($places as $place) {
            $readings[$place] = $context->reading($columns[$place], Kind::Text);
        }

        return static function (RowCursor $row) use ($places, $columns, $figures, $readings, &$above, $fromAbove): array {
            $cells = $row->cells;
            foreach ($places as $place) {
                $isBlank = $readings[$place]->isBlank($cells[$place]);
                if ($isBlank && $above[$place] !== '') {
                    $cells[$place] = $above[$place];
                    $figures->alter($columns[$place]);
                } elseif ($fromAbove && ! $isBlank) {
                    $above[$place] = $cells[$place];
                }
            }

            return array_values($cells);
        };
    }
}
