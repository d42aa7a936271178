<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\Formula\Functions;
use NineTally\Core\Preparation\StepFigures;
use NineTally\Core\Value\Reading;

/** What several rows give in one column. Blank cells take no part; a value that is no number is counted, and takes none in a sum either. */
final readonly class TotalOfRows
{
    public const NO_NUMBER = 'no number';

    public function __construct(private string $total, private Reading $reading, private StepFigures $figures) {}

    /** @param list<string> $values in the order of the rows */
    public function of(array $values): string
    {
        $given = array_values(array_filter($values, fn(string $value): bool => ! $this->reading->isBlank($value)));

        return match ($this->total) {
            'count' => (string) count($given),
            'distinct' => (string) count(array_unique($given)),
            'first' => $given[0] ?? '',
            'last' => $given[count($given) - 1] ?? '',
            'longest' => array_reduce($given, self::longer(...), ''),
            default => $this->number($given),
        };
    }

    /** The first of those that are as long as each other. */
    private static function longer(string $longest, string $value): string
    {
        return mb_strlen($value) > mb_strlen($longest) ? $value : $longest;
    }

    /** @param list<string> $given */
    private function number(array $given): string
    {
        /** @var \Brick\Math\BigDecimal|null $sum */
        $sum = null;
        foreach ($given as $value) {
            $number = $this->reading->number($value)?->toBigDecimal();
            if ($number === null) {
                $this->figures->note(self::NO_NUMBER, $value);

                continue;
            }
            $sum = match (true) {
                $sum === null => $number,
                $this->total === 'sum' => $sum->plus($number),
                $this->total === 'lowest' => $number->compareTo($sum) < 0 ? $number : $sum,
                default => $number->compareTo($sum) > 0 ? $number : $sum,
            };
        }

        // As read-number and formulas write them: one form for one number.
        return $sum === null ? '' : Functions::written($sum);
    }
}
