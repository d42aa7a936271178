<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Conditions;

use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\RowCursor;
use NineTally\Core\Preparation\StepContext;

/** All of some conditions, or any. */
final readonly class CompoundCondition implements Condition
{
    /** @param non-empty-list<Condition> $conditions */
    public function __construct(private bool $all, private array $conditions) {}

    public function bind(ColumnIndex $places, StepContext $context): \Closure
    {
        $tests = array_map(static fn(Condition $condition): \Closure => $condition->bind($places, $context), $this->conditions);
        $all = $this->all;

        return static function (RowCursor $row) use ($tests, $all): bool {
            foreach ($tests as $test) {
                if ($test($row) !== $all) {
                    return ! $all;
                }
            }

            return $all;
        };
    }

    public function mustFit(ColumnIndex $places): void
    {
        foreach ($this->conditions as $condition) {
            $condition->mustFit($places);
        }
    }

    public function sentence(): string
    {
        return implode(
            $this->all ? ' and ' : ' or ',
            array_map(
                static fn(Condition $condition): string => $condition instanceof self
                    ? "({$condition->sentence()})"
                    : $condition->sentence(),
                $this->conditions,
            ),
        );
    }
}
