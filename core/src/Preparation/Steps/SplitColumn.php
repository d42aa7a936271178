<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\RowByRow;
use NineTally\Core\Preparation\RowCursor;
use NineTally\Core\Preparation\SafePattern;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Value\Kind;

/** Splits a column into several: at a separator, by lengths, or by the groups of a pattern. The last one takes what is left over. */
final class SplitColumn extends RowByRow
{
    public const NO_MATCH = 'pattern not found';

    /**
     * @param  list<string>  $into
     * @param  list<int>  $lengths  in characters; the last part takes the rest
     */
    public function __construct(
        private readonly string $column,
        private readonly array $into,
        private readonly bool $keeps,
        private readonly string $separator = '',
        private readonly array $lengths = [],
        private readonly string $pattern = '',
    ) {}

    public function columns(array $columns): array
    {
        $place = ColumnIndex::of($columns)->at($this->column);
        $rest = $columns;
        array_splice($rest, $place, $this->keeps ? 0 : 1);
        ColumnIndex::of($rest)->mustBeFree($this->into);
        array_splice($rest, $place + ($this->keeps ? 1 : 0), 0, $this->into);

        return $rest;
    }

    public function sentence(): string
    {
        $how = match (true) {
            $this->separator !== '' => "at \"{$this->separator}\"",
            $this->lengths !== [] => 'after '.implode(', ', $this->lengths).' characters',
            default => "by the pattern {$this->pattern}",
        };

        return "Split {$this->column} {$how} into ".Words::listed($this->into);
    }

    protected function bind(array $columns, StepContext $context): \Closure
    {
        $place = ColumnIndex::of($columns)->at($this->column);
        $split = $this->split($context);
        $reading = $context->reading($this->column, Kind::Text);
        [$parts, $keeps, $figures, $into] = [count($this->into), $this->keeps, $context->figures, $this->into];

        return static function (RowCursor $row) use ($place, $split, $parts, $keeps, $figures, $into, $reading): array {
            $cells = $row->cells;
            $made = $reading->isBlank($cells[$place]) ? [] : $split($cells[$place]);
            if ($made !== []) {
                $figures->alter(...$into);
            }
            array_splice($cells, $place + ($keeps ? 1 : 0), $keeps ? 0 : 1, array_pad(array_slice($made, 0, $parts), $parts, ''));

            return $cells;
        };
    }

    /** @return \Closure(string): list<string> */
    private function split(StepContext $context): \Closure
    {
        $parts = count($this->into);
        if ($this->separator !== '') {
            $separator = $this->separator;

            return static fn(string $cell): array => explode($separator, $cell, $parts);
        }
        if ($this->lengths !== []) {
            $lengths = $this->lengths;

            return static function (string $cell) use ($lengths): array {
                $made = [];
                $from = 0;
                foreach ($lengths as $length) {
                    $made[] = mb_substr($cell, $from, $length);
                    $from += $length;
                }

                return [...$made, mb_substr($cell, $from)];
            };
        }
        $pattern = SafePattern::of($this->pattern);
        $figures = $context->figures;

        return static function (string $cell) use ($pattern, $figures): array {
            $groups = $pattern->groups($cell);
            $groups !== [] || $figures->note(self::NO_MATCH, $cell);

            return $groups;
        };
    }
}
