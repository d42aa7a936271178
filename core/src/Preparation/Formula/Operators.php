<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Formula;

use Brick\Math\BigDecimal;
use Brick\Math\Exception\MathException;
use Brick\Math\RoundingMode;
use NineTally\Core\Preparation\RowCursor;
use NineTally\Core\Preparation\UnusableStep;
use NineTally\Core\Value\PlainNumber;

/** What the operators of formulas do: exact decimals, texts, and yes or no. */
final class Operators
{
    public const BETWEEN_TWO = [
        '+', '-', '*', '/', '~', '==', '!=', '<', '<=', '>', '>=', 'and', '&&', 'or', '||', 'contains', 'starts with', 'ends with',
    ];

    /** Places to which a quotient without end is carried. */
    private const PLACES = 20;

    public static function wants(string $operator): Wanted
    {
        return match ($operator) {
            '+', '-', '*', '/' => Wanted::Number,
            '~', 'contains', 'starts with', 'ends with' => Wanted::Text,
            default => Wanted::Value,
        };
    }

    /**
     * @param  \Closure(RowCursor): (string|bool|PlainNumber)  $condition
     * @param  \Closure(RowCursor): (string|bool|PlainNumber)  $yes
     * @param  \Closure(RowCursor): (string|bool|PlainNumber)  $no
     * @return \Closure(RowCursor): (string|bool|PlainNumber)
     */
    public static function choice(\Closure $condition, \Closure $yes, \Closure $no): \Closure
    {
        return static fn(RowCursor $row): string|bool|PlainNumber => self::truth($condition($row)) ? $yes($row) : $no($row);
    }

    /**
     * @param  \Closure(RowCursor): (string|bool|PlainNumber)  $value
     * @return \Closure(RowCursor): (string|bool|PlainNumber)
     */
    public static function unary(string $operator, \Closure $value): \Closure
    {
        return match ($operator) {
            '-' => static fn(RowCursor $row): string => Functions::written(Functions::number(self::text($value($row)))->negated()),
            '+' => static fn(RowCursor $row): string => Functions::written(Functions::number(self::text($value($row)))),
            'not', '!' => static fn(RowCursor $row): bool => ! self::truth($value($row)),
            default => throw UnusableStep::because("The formula has an operator that formulas here do not have: {$operator}."),
        };
    }

    /**
     * @param  \Closure(RowCursor): (string|bool|PlainNumber)  $left
     * @param  \Closure(RowCursor): (string|bool|PlainNumber)  $right
     * @return \Closure(RowCursor): (string|bool|PlainNumber)
     */
    public static function binary(string $operator, \Closure $left, \Closure $right, Effort $effort): \Closure
    {
        if (in_array($operator, ['and', '&&'], true)) {
            return static fn(RowCursor $row): bool => self::truth($left($row)) && self::truth($right($row));
        }
        if (in_array($operator, ['or', '||'], true)) {
            return static fn(RowCursor $row): bool => self::truth($left($row)) || self::truth($right($row));
        }

        return in_array($operator, ['+', '-', '*', '/'], true)
            ? self::arithmetic($operator, $left, $right, $effort)
            : static function (RowCursor $row) use ($operator, $left, $right, $effort): string|bool {
                [$one, $other] = [self::text($left($row)), self::text($right($row))];
                $effort->spendOnNumbers($operator, strlen($one), strlen($other));

                return match ($operator) {
                    '~' => Functions::bounded($one.$other),
                    'contains' => str_contains($one, $other),
                    'starts with' => str_starts_with($one, $other),
                    'ends with' => str_ends_with($one, $other),
                    default => self::compared($operator, $one, $other),
                };
            };
    }

    /**
     * Plainly written numbers are reckoned as integers, and go from one operator to the next as they are: most formulas never leave them.
     *
     * @param  \Closure(RowCursor): (string|bool|PlainNumber)  $left
     * @param  \Closure(RowCursor): (string|bool|PlainNumber)  $right
     * @return \Closure(RowCursor): (string|PlainNumber)
     */
    private static function arithmetic(string $operator, \Closure $left, \Closure $right, Effort $effort): \Closure
    {
        return static function (RowCursor $row) use ($operator, $left, $right, $effort): string|PlainNumber {
            $one = $left($row);
            $other = $right($row);
            $first = is_string($one) ? PlainNumber::of($one) : ($one instanceof PlainNumber ? $one : null);
            $second = is_string($other) ? PlainNumber::of($other) : ($other instanceof PlainNumber ? $other : null);
            $effort->spendOnNumbers($operator, self::length($one), self::length($other));
            $plain = $first === null || $second === null ? null : match ($operator) {
                '+' => $first->plus($second),
                '-' => $first->minus($second),
                '*' => $first->times($second),
                default => null,
            };

            return $plain === null ? self::exact($operator, self::text($one), self::text($other)) : $plain->stripped();
        };
    }

    private static function length(string|bool|PlainNumber $value): int
    {
        return is_string($value) ? strlen($value) : PlainNumber::LONGEST;
    }

    private static function exact(string $operator, string $left, string $right): string
    {
        [$left, $right] = [Functions::number($left), Functions::number($right)];
        try {
            return Functions::written(match ($operator) {
                '+' => $left->plus($right),
                '-' => $left->minus($right),
                '*' => $left->multipliedBy($right),
                default => self::quotient($left, $right),
            });
        } catch (MathException) {
            throw FormulaError::because('divided by zero');
        }
    }

    private static function quotient(BigDecimal $left, BigDecimal $right): BigDecimal
    {
        return $left->dividedBy($right, max(self::PLACES, $left->getScale()), RoundingMode::HALF_EVEN);
    }

    /** Two numbers by their size, else two texts by their bytes. */
    private static function compared(string $operator, string $left, string $right): bool
    {
        $one = PlainNumber::of($left);
        $other = $one === null ? null : PlainNumber::of($right);
        $order = ($one === null || $other === null ? null : $one->comparedTo($other)) ?? self::order($left, $right);

        return match ($operator) {
            '==' => $order === 0,
            '!=' => $order !== 0,
            '<' => $order < 0,
            '<=' => $order <= 0,
            '>' => $order > 0,
            default => $order >= 0,
        };
    }

    private static function order(string $left, string $right): int
    {
        [$one, $other] = [Functions::numberOrNull($left), Functions::numberOrNull($right)];

        return $one !== null && $other !== null ? $one->compareTo($other) : strcmp($left, $right);
    }

    public static function text(string|bool|PlainNumber $value): string
    {
        return is_string($value) ? $value : (is_bool($value) ? ($value ? 'yes' : 'no') : $value->written(false));
    }

    private static function truth(string|bool|PlainNumber $value): bool
    {
        return is_bool($value) ? $value : throw FormulaError::because('yes or no is needed, and a value stands there');
    }
}
