<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Formula;

use NineTally\Core\Preparation\UnusableStep;

/**
 * What a formula costs, in units of some twenty nanoseconds, counted by the lengths of what it is given: the same formula on the same
 * rows is refused at the same row on every machine.
 */
final class Effort
{
    /** A fiftieth of a second. */
    public const MOST_OF_CELL = 1_000_000;

    /** Twenty seconds, whatever the number of rows; and a tenth of a millisecond for each row. */
    public const MOST_OF_RUN = 1_000_000_000;

    private const OF_ROW = 5_000;

    /** Of each operator and function, however short its texts. */
    private const EACH = 20;

    /** A product of two numbers costs their digits times one another; a quotient more. */
    private const DIGITS_OF_PRODUCT = 4;

    private const OF_QUOTIENT = 16;

    private int $ofCell = 0;

    private int $rows = 0;

    public function __construct(private int $left = self::MOST_OF_RUN) {}

    public function beginRow(): void
    {
        $this->left += self::OF_ROW - $this->ofCell;
        $this->ofCell = 0;
        if ($this->left < 0) {
            throw UnusableStep::because(
                sprintf(
                    'The formula takes too long: %s rows took more than a run allows. Divide it into steps, or make the texts and numbers '.
                        'that it works on shorter.',
                    number_format($this->rows),
                ),
            );
        }
        $this->rows++;
    }

    /**
     * @param int $bytes of the texts that are worked on
     *
     * @throws FormulaError when the cell took enough
     */
    public function spend(int $bytes): void
    {
        $this->ofCell += self::EACH + $bytes;
        if ($this->ofCell > self::MOST_OF_CELL) {
            throw FormulaError::because('the formula takes too long on a row');
        }
    }

    /**
     * Before numbers are multiplied or divided.
     *
     * @param  int  $left  bytes
     * @param  int  $right  bytes
     *
     * @throws FormulaError
     */
    public function spendOnNumbers(string $operator, int $left, int $right): void
    {
        $digits = $left * $right;
        $this->spend(match ($operator) {
            '*' => intdiv($digits, self::DIGITS_OF_PRODUCT),
            '/' => intdiv($digits * self::OF_QUOTIENT, self::DIGITS_OF_PRODUCT),
            default => $left + $right,
        });
    }
}
