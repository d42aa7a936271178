<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\Grouping;
use NineTally\Core\Preparation\Step;
use NineTally\Core\Preparation\StepContext;

/** Rows that are alike but for a name and a value become one row with a column for each name: the reverse of columns into rows. */
final readonly class RowsIntoColumns implements Step
{
    public const COLLISION = 'collision';

    public const OTHER_NAME = 'another name';

    /** @param non-empty-list<string> $into the names that become columns, in this order */
    public function __construct(private string $namesFrom, private string $valuesFrom, private array $into) {}

    public function columns(array $columns): array
    {
        $places = ColumnIndex::of($columns)->all([$this->namesFrom, $this->valuesFrom]);
        $rest = array_values(array_diff_key($columns, array_flip($places)));
        ColumnIndex::of($rest)->mustBeFree($this->into);

        return [...$rest, ...$this->into];
    }

    public function sentence(): string
    {
        return "Rows into columns: {$this->valuesFrom} by {$this->namesFrom}, as ".Words::listed($this->into);
    }

    public function run(iterable $rows, array $columns, StepContext $context): \Generator
    {
        [$name, $value] = ColumnIndex::of($columns)->all([$this->namesFrom, $this->valuesFrom]);
        $rest = array_values(array_diff(array_keys($columns), [$name, $value]));
        $figures = $context->figures;

        return (new Grouping($context->folder))->run($this->named($rows, $name, $context), $rest, function (array $group) use (
            $name,
            $value,
            $rest,
            $context,
            $figures,
        ): iterable {
            [$number, $packedPlace, $first] = $group[0];
            $values = array_fill_keys($this->into, null);
            foreach ($group as $nth => [, $of, $cells]) {
                if ($values[$cells[$name]] !== null) {
                    // Two values for one cell: the first stays, the row with the other is left out and seen.
                    $figures->note(self::COLLISION, $cells[$name]);
                    $context->leaveOut($of, $cells);

                    continue;
                }
                $values[$cells[$name]] = $cells[$value];
                $nth === 0 || $context->condense($packedPlace, $of);
            }
            $figures->out++;

            return [
                [
                    $number,
                    $packedPlace,
                    [
                        ...array_map(static fn(int $place): string => $first[$place], $rest),
                        ...array_map(static fn(?string $cell): string => $cell ?? '', array_values($values)),
                    ],
                ],
            ];
        });
    }

    /**
     * @param  iterable<int, list<string>>  $rows
     * @return \Generator<int, list<string>>
     */
    private function named(iterable $rows, int $name, StepContext $context): \Generator
    {
        $known = array_fill_keys($this->into, true);
        foreach ($rows as $packedPlace => $cells) {
            $context->figures->in++;
            if (isset($known[$cells[$name]])) {
                yield $packedPlace => $cells;
            } else {
                $context->figures->note(self::OTHER_NAME, $cells[$name]);
                $context->leaveOut($packedPlace, $cells);
            }
        }
    }
}
