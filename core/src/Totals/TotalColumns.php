<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

use NineTally\Core\Cause\CanonicalForm;
use NineTally\Core\Cause\FormCombination;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Matching\KeyForm;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\Side;
use NineTally\Core\Value\Decimal;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;
use NineTally\Core\Value\ValueOrder;

/** How one side's rows are taken into a control total: which cells, how they are read, and to which group they belong. */
final class TotalColumns
{
    private const MEMO_SIZE = 10_000;

    public readonly ?int $place;

    public readonly Reading $reading;

    public readonly ValueOrder $order;

    /** Whether numbers are written with a point, so that most need no reading. */
    public readonly bool $isPlain;

    /** @var list<int> */
    private readonly array $groupPlaces;

    /** @var list<Reading> */
    private readonly array $groupReadings;

    private readonly KeyForm $groupForm;

    private readonly CanonicalForm $valueForm;

    /** @var array<string, string> of the pair of the value, which the source goes through */
    private readonly array $valueCrosswalk;

    /** @var list<array<string, string>> by group column: the crosswalk of its pair, which the source goes through */
    private readonly array $crosswalks;

    /** @var array<string, string> cells of the group as they stand => as groups meet */
    private array $memo = [];

    public function __construct(public readonly ControlTotal $total, Side $side, Plan $plan, Columns $columns, FormCombination $forms)
    {
        $rules = $plan->side($side);
        $column = $total->column($side);
        $this->place = $column === null ? null : $columns->positionOf($column);
        $isOfText = in_array($total->measure, [Measure::Blanks, Measure::Distinct], true);
        $this->reading = $rules->reading($column ?? '', $isOfText ? Kind::Text : $total->kind);
        $this->order = new ValueOrder($this->reading);
        $this->isPlain = $this->reading->numbers->decimalMark === '.';
        $pair = self::pairOf($plan, ['source' => $total->source ?? '', 'target' => $total->target ?? '']);
        $this->valueForm = new CanonicalForm(
            $rules->reading($column ?? '', $pair instanceof ColumnPair ? $pair->kind : Kind::Text),
            $pair === null ? [] : $pair->forgives,
            $forms,
        );
        $this->valueCrosswalk = $side === Side::Source && $pair instanceof ColumnPair ? $pair->crosswalk : [];
        $names = $total->groupColumns($side);
        $this->groupPlaces = $columns->positionsOf($names);
        $pairs = array_map(static fn(array $by): ColumnPair|KeyColumn|null => self::pairOf($plan, $by), $total->by);
        $this->groupReadings = array_map(static fn(string $name): Reading => $rules->reading($name, Kind::Text), $names);
        $this->groupForm = new KeyForm(
            $this->groupReadings,
            array_map(static fn(ColumnPair|KeyColumn|null $pair): array => $pair === null ? [] : $pair->forgives, $pairs),
            $forms,
        );
        $this->crosswalks = array_map(
            static fn(ColumnPair|KeyColumn|null $pair): array => $side === Side::Source && $pair instanceof ColumnPair
                ? $pair->crosswalk
                : [],
            $pairs,
        );
    }

    /** Whether the same bytes on both sides are the same amount and the same group. */
    public function readsLike(self $other): bool
    {
        foreach ($this->groupReadings as $nth => $reading) {
            if (! $reading->isLike($other->groupReadings[$nth])) {
                return false;
            }
        }

        return $this->reading->isLike($other->reading);
    }

    /** @return list<int> of the cells that it looks at */
    public function places(): array
    {
        return [...$this->place === null ? [] : [$this->place], ...$this->groupPlaces];
    }

    /**
     * The rows of a block by their group as it stands there.
     *
     * @param  array<int, list<string>>  $columns  cells by their place
     * @param  int  $rows  of the block
     * @return array<array-key, array<int, string>|int> the values by number of the row in the block; how many rows, where no value is
     *     looked at
     */
    public function byGroup(array $columns, int $rows): array
    {
        $written = match (count($this->groupPlaces)) {
            0 => null,
            1 => $columns[$this->groupPlaces[0]],
            default => array_map(
                static fn(string ...$cells): string => implode(KeyTuple::SEPARATOR, $cells),
                ...array_map(static fn(int $place): array => $columns[$place], $this->groupPlaces),
            ),
        };
        if ($this->place === null) {
            return $written === null ? ['' => $rows] : array_count_values($written);
        }
        $values = $columns[$this->place];
        if ($written === null) {
            return ['' => $values];
        }
        $byGroup = [];
        foreach ($written as $row => $group) {
            $byGroup[$group][$row] = $values[$row];
        }

        return $byGroup;
    }

    /** @param string $written the cells of the group columns as they stand, joined */
    public function meets(string $written): string
    {
        if ($this->groupPlaces === []) {
            return '';
        }
        if (! isset($this->memo[$written])) {
            $this->memo = count($this->memo) === self::MEMO_SIZE ? [] : $this->memo;
            $this->memo[$written] = $this->groupForm->canonical($this->labelsOf($written));
        }

        return $this->memo[$written];
    }

    /** @return list<string> the values of the group columns, through the crosswalks of their pairs */
    public function labelsOf(string $written): array
    {
        $labels = [];
        foreach ($this->groupPlaces === [] ? [] : explode(KeyTuple::SEPARATOR, $written) as $nth => $cell) {
            $labels[] = $this->crosswalks[$nth][$cell] ?? $cell;
        }

        return $labels;
    }

    /** @param list<string> $cells of a row */
    public function group(array $cells): string
    {
        return $this->meets(implode(KeyTuple::SEPARATOR, array_map(static fn(int $place): string => $cells[$place], $this->groupPlaces)));
    }

    /**
     * What a row adds to the total: 1 for each that is counted, the number where numbers are summed.
     *
     * @param  list<string>  $cells
     * @return Decimal|null null where its value cannot be read, and adds nothing
     */
    public function amount(array $cells): ?Decimal
    {
        $cell = $this->place === null ? '' : $cells[$this->place];

        return match ($this->total->measure) {
            Measure::Rows => self::one(),
            Measure::Blanks => $this->reading->isBlank($cell) ? self::one() : self::zero(),
            default => $this->reading->isBlank($cell) ? self::zero() : $this->number($cell),
        };
    }

    /** One writing for all values that its pair takes for the same. */
    public function canonical(string $cell): string
    {
        return $this->valueForm->of($this->valueCrosswalk[$cell] ?? $cell);
    }

    /** @return Decimal|null null where the value is no number, or has too many digits to be added up */
    public function number(string $cell): ?Decimal
    {
        $number = $this->reading->number($cell);

        return $number?->canBeSummed() === true ? $number : null;
    }

    private static function one(): Decimal
    {
        return Decimal::of(false, '1', '', 0);
    }

    private static function zero(): Decimal
    {
        return Decimal::of(false, '0', '', 0);
    }

    /** @param array{source: string, target: string} $by */
    private static function pairOf(Plan $plan, array $by): ColumnPair|KeyColumn|null
    {
        foreach ([...$plan->key, ...$plan->columnPairs] as $pair) {
            if ($pair->source === $by['source'] && $pair->target === $by['target']) {
                return $pair;
            }
        }

        return null;
    }
}
