<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Conditions;

use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\RowCursor;
use NineTally\Core\Preparation\SafePattern;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Preparation\StepFigures;
use NineTally\Core\Preparation\UnusableStep;
use NineTally\Core\Row\Excerpt;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Moment;
use NineTally\Core\Value\Reading;

/** What is asked of one cell of a row. A cell that is no number or no date meets no test of numbers or dates, and is counted. */
final readonly class CellCondition implements Condition
{
    /**
     * @param  list<string>  $values  for the tests that take several
     * @param  string|null  $until  the column of the last day, for ValidOn
     */
    public function __construct(
        private string $column,
        private Test $test,
        private string $value = '',
        private bool $isParameter = false,
        private array $values = [],
        private ?string $until = null,
    ) {}

    public function mustFit(ColumnIndex $places): void
    {
        $places->at($this->column);
        $this->until === null || $places->at($this->until);
    }

    public function bind(ColumnIndex $places, StepContext $context): \Closure
    {
        $place = $places->at($this->column);
        $value = $this->isParameter ? $context->parameter($this->value) : $this->value;
        if ($this->test->isOfNumbers()) {
            return $this->ofNumbers($place, $value, $context);
        }
        if ($this->test->isOfDates()) {
            return $this->ofDates($place, $places, $value, $context);
        }
        $text = $context->reading($this->column, Kind::Text);
        $among = array_fill_keys($this->values, true);
        $pattern = $this->test === Test::Matches ? SafePattern::of($value) : null;

        return match ($this->test) {
            Test::IsBlank => static fn(RowCursor $row): bool => $text->isBlank($row->cells[$place]),
            Test::IsNotBlank => static fn(RowCursor $row): bool => ! $text->isBlank($row->cells[$place]),
            Test::Is => static fn(RowCursor $row): bool => $row->cells[$place] === $value,
            Test::IsNot => static fn(RowCursor $row): bool => $row->cells[$place] !== $value,
            Test::Contains => static fn(RowCursor $row): bool => str_contains($row->cells[$place], $value),
            Test::BeginsWith => static fn(RowCursor $row): bool => str_starts_with($row->cells[$place], $value),
            Test::EndsWith => static fn(RowCursor $row): bool => str_ends_with($row->cells[$place], $value),
            Test::IsOneOf => static fn(RowCursor $row): bool => isset($among[$row->cells[$place]]),
            Test::IsNotOneOf => static fn(RowCursor $row): bool => ! isset($among[$row->cells[$place]]),
            default => static fn(RowCursor $row): bool => $pattern !== null && $pattern->matches($row->cells[$place]),
        };
    }

    public function sentence(): string
    {
        $value = match (true) {
            $this->isParameter => "“{$this->value}” of the tally",
            ! $this->test->takesValue() => $this->values === []
                ? ''
                : implode(', ', array_slice($this->values, 0, 3)).
                    (count($this->values) > 3 ? sprintf(' and %d more', count($this->values) - 3) : ''),
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
        $reading = $context->reading($this->column, Kind::Number);
        // What the plan says is written plainly, or as the column writes it.
        $limit =
            ((new Reading(Kind::Number))->number($value) ?? $reading->number($value))?->toBigDecimal() ??
            throw UnusableStep::because(sprintf('"%s" is no number.', Excerpt::of($value)));
        $figures = $context->figures;
        $test = $this->test;

        return static function (RowCursor $row) use ($place, $reading, $limit, $figures, $test): bool {
            $cell = $row->cells[$place];
            $number = $reading->isBlank($cell) ? null : $reading->number($cell)?->toBigDecimal();
            if ($number === null) {
                $reading->isBlank($cell) || $figures->note('no number', $cell);

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

    private function ofDates(int $place, ColumnIndex $places, string $value, StepContext $context): \Closure
    {
        $reading = $context->reading($this->column, Kind::DateTime);
        $day =
            (new Reading(Kind::DateTime))->moment($value) ??
            ($reading->moment($value) ??
                throw UnusableStep::because(sprintf('"%s" is no date. Write it as 2027-03-31.', Excerpt::of($value))));
        $test = $this->test;
        $begin = self::reader($reading, $context->figures);
        if ($this->until !== null) {
            [$until, $end] = [$places->at($this->until), self::reader($context->reading($this->until, Kind::DateTime), $context->figures)];

            return static function (RowCursor $row) use ($place, $begin, $until, $end, $day): bool {
                [$first, $last] = [$begin($row->cells[$place]), $end($row->cells[$until])];

                // A blank end is open; one that cannot be read is none.
                return $first !== false &&
                    ($first === null || $first->compareTo($day) <= 0) &&
                    $last !== false &&
                    ($last === null || $day->compareTo($last) <= 0);
            };
        }

        return static function (RowCursor $row) use ($place, $begin, $day, $test): bool {
            $moment = $begin($row->cells[$place]);
            if ($test === Test::ValidOn) {
                return $moment === null || $moment !== false && $moment->compareTo($day) <= 0;
            }
            $order = $moment === null || $moment === false ? null : $moment->compareTo($day);

            return $order !== null && match ($test) {
                Test::Before => $order < 0,
                Test::OnOrBefore => $order <= 0,
                Test::After => $order > 0,
                default => $order >= 0,
            };
        };
    }

    /** @return \Closure(string): (Moment|false|null) null where the cell is blank, false where it is no date, which is counted */
    private static function reader(Reading $reading, StepFigures $figures): \Closure
    {
        return static function (string $cell) use ($reading, $figures): Moment|false|null {
            if ($reading->isBlank($cell)) {
                return null;
            }
            $moment = $reading->moment($cell);
            $moment !== null || $figures->note('no date', $cell);

            return $moment ?? false;
        };
    }
}
