<?php

declare(strict_types=1);

namespace NineTally\Core\Shape\Conditions;

use NineTally\Core\Shape\Cells;
use NineTally\Core\Shape\ColumnPlaces;
use NineTally\Core\Shape\SafePattern;
use NineTally\Core\Shape\StepContext;
use NineTally\Core\Shape\UnusableStep;
use NineTally\Core\Value\NumberStyle;
use NineTally\Core\Value\UndeclaredDates;

/** What is asked of one cell of a row. A cell that is no number or no date meets no test of numbers or dates, and is counted. */
final readonly class OfCell implements Condition
{
    /**
     * @param  list<string>  $values  for the tests that take several
     * @param  string|null  $until  the column of the last day, for ValidOn
     */
    public function __construct(private string $column, private Test $test, private string $value = '', private bool $isParameter = false, private array $values = [], private ?string $until = null) {}

    public function mustFit(ColumnPlaces $places): void
    {
        $places->at($this->column);
        $this->until === null || $places->at($this->until);
    }

    public function bind(ColumnPlaces $places, StepContext $context): \Closure
    {
        $place = $places->at($this->column);
        $value = $this->isParameter ? $context->parameter($this->value) : $this->value;
        if ($this->test->isOfNumbers()) {
            return $this->ofNumbers($place, $value, $context);
        }
        if ($this->test->isOfDates()) {
            return $this->ofDates($place, $places, $value, $context);
        }
        $among = array_fill_keys($this->values, true);
        $pattern = $this->test === Test::Matches ? SafePattern::of($value) : null;

        return match ($this->test) {
            Test::IsBlank => static fn(Cells $row): bool => $row->cells[$place] === '',
            Test::IsNotBlank => static fn(Cells $row): bool => $row->cells[$place] !== '',
            Test::Is => static fn(Cells $row): bool => $row->cells[$place] === $value,
            Test::IsNot => static fn(Cells $row): bool => $row->cells[$place] !== $value,
            Test::Contains => static fn(Cells $row): bool => str_contains($row->cells[$place], $value),
            Test::BeginsWith => static fn(Cells $row): bool => str_starts_with($row->cells[$place], $value),
            Test::EndsWith => static fn(Cells $row): bool => str_ends_with($row->cells[$place], $value),
            Test::IsOneOf => static fn(Cells $row): bool => isset($among[$row->cells[$place]]),
            Test::IsNotOneOf => static fn(Cells $row): bool => ! isset($among[$row->cells[$place]]),
            default => static fn(Cells $row): bool => $pattern !== null && $pattern->matches($row->cells[$place]),
        };
    }

    public function sentence(): string
    {
        $value = match (true) {
            $this->isParameter => "“{$this->value}” of the tally",
            ! $this->test->takesValue() => $this->values === [] ? '' : implode(', ', array_slice($this->values, 0, 3)).(count($this->values) > 3 ? sprintf(' and %d more', count($this->values) - 3) : ''),
            default => $this->test->isOfNumbers() || $this->test->isOfDates() ? $this->value : "\"{$this->value}\"",
        };

        return $this->test === Test::ValidOn
            ? "{$this->column} to {$this->until} includes {$value}"
            : trim("{$this->column} {$this->verb()} {$value}");
    }

    private function verb(): string
    {
        return ($this->test->isOfNumbers() || $this->test->isOfDates() ? 'is ' : '').$this->test->words();
    }

    private function ofNumbers(int $place, string $value, StepContext $context): \Closure
    {
        $style = new NumberStyle;
        $limit = $style->read($value, true)?->toBigDecimal() ?? throw UnusableStep::because(sprintf('"%s" is no number.', $value));
        $figures = $context->figures;
        $test = $this->test;

        return static function (Cells $row) use ($place, $style, $limit, $figures, $test): bool {
            $cells = $row->cells;
            $number = $cells[$place] === '' ? null : $style->read($cells[$place], true)?->toBigDecimal();
            if ($number === null) {
                $cells[$place] === '' || $figures->note('no number', $cells[$place]);

                return false;
            }
            $order = $number->compareTo($limit);

            return match ($test) {
                Test::LessThan => $order < 0,
                Test::AtMost => $order <= 0,
                Test::MoreThan => $order > 0,
                default => $order >= 0,
            };
        };
    }

    private function ofDates(int $place, ColumnPlaces $places, string $value, StepContext $context): \Closure
    {
        $day = UndeclaredDates::read($value)?->secondsSinceEpoch() ?? throw UnusableStep::because(sprintf('"%s" is no date. Write it as 2027-03-31.', $value));
        $figures = $context->figures;
        $test = $this->test;
        $until = $this->until === null ? null : $places->at($this->until);
        $read = static function (string $cell) use ($figures): ?int {
            $moment = $cell === '' ? null : UndeclaredDates::read($cell);
            $moment !== null || $cell === '' || $figures->note('no date', $cell);

            return $moment?->secondsSinceEpoch();
        };

        return static function (Cells $row) use ($place, $read, $day, $test, $until): bool {
            $cells = $row->cells;
            $seconds = $read($cells[$place]);
            if ($test === Test::ValidOn) {
                $last = $until === null ? null : $read($cells[$until]);

                return ($seconds !== null ? $seconds <= $day : $cells[$place] === '') && ($last !== null ? $day <= $last : $until === null || $cells[$until] === '');
            }

            return $seconds !== null && match ($test) {
                Test::Before => $seconds < $day,
                Test::OnOrBefore => $seconds <= $day,
                Test::After => $seconds > $day,
                default => $seconds >= $day,
            };
        };
    }
}
