<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\RowByRow;
use NineTally\Core\Preparation\RowCursor;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Value\Kind;

/** Joins columns to one, which stands where the first of them stood. */
final class JoinColumns extends RowByRow
{
    /** @param non-empty-list<string> $chosen */
    public function __construct(
        private readonly array $chosen,
        private readonly string $with,
        private readonly string $into,
        private readonly bool $keeps,
        private readonly bool $skipsBlanks,
    ) {}

    public function columns(array $columns): array
    {
        $first = ColumnIndex::of($columns)->at($this->chosen[0]);
        ColumnIndex::of($columns)->all($this->chosen);
        $names = $columns;
        array_splice($names, $first, 0, [$this->into]);
        if (! $this->keeps) {
            $leftOut = array_map(
                static fn(int $place): int => $place + ($place >= $first ? 1 : 0),
                ColumnIndex::of($columns)->all($this->chosen),
            );
            $names = array_values(array_diff_key($names, array_flip($leftOut)));
        }
        ColumnIndex::of(
            array_values(
                array_filter(
                    $names,
                    fn(string $name, int $place): bool => $name !== $this->into || $place !== array_search($this->into, $names, true),
                    ARRAY_FILTER_USE_BOTH,
                ),
            ),
        )->mustBeFree([$this->into]);

        return $names;
    }

    public function sentence(): string
    {
        return 'Join '.Words::listed($this->chosen).($this->with === '' ? '' : " with \"{$this->with}\"")." into {$this->into}";
    }

    protected function bind(array $columns, StepContext $context): \Closure
    {
        $places = ColumnIndex::of($columns)->all($this->chosen);
        $leftOut = $this->keeps ? [] : array_flip($places);
        $readings = [];
        foreach ($places as $nth => $place) {
            $readings[$place] = $context->reading($this->chosen[$nth], Kind::Text);
        }
        [$first, $with, $skips, $figures, $into] = [$places[0], $this->with, $this->skipsBlanks, $context->figures, $this->into];

        return static function (RowCursor $row) use ($places, $leftOut, $first, $with, $skips, $figures, $into, $readings): array {
            $cells = $row->cells;
            $parts = [];
            foreach ($places as $place) {
                if (! $skips || ! $readings[$place]->isBlank($cells[$place])) {
                    $parts[] = $cells[$place];
                }
            }
            $figures->alter($into);
            $after = [];
            foreach ($cells as $place => $cell) {
                if ($place === $first) {
                    $after[] = implode($with, $parts);
                }
                if (! isset($leftOut[$place])) {
                    $after[] = $cell;
                }
            }

            return $after;
        };
    }
}
