<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

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

    public readonly ?int $unitPlace;

    private readonly ?Decimal $unitForAll;

    private readonly Reading $unitReading;

    /** @var list<int> */
    public readonly array $alongPlaces;

    /** @var list<PairedForm> */
    private readonly array $alongForms;

    /** @var list<int> */
    public readonly array $groupPlaces;

    /** @var list<Reading> */
    private readonly array $groupReadings;

    private readonly KeyForm $groupForm;

    private readonly PairedForm $valueForm;

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
        $this->valueForm = new PairedForm(['source' => $total->source ?? '', 'target' => $total->target ?? ''], $side, $plan, $forms);
        $this->alongForms = array_map(static fn(array $pair): PairedForm => new PairedForm($pair, $side, $plan, $forms), $total->along);
        $unit = $total->times?->column($side);
        $this->unitPlace = $unit === null ? null : $columns->positionOf($unit);
        $this->unitReading = $rules->reading($unit ?? '', Kind::Number);
        $this->unitForAll = $total->times?->constant === null ? null : (new Reading(Kind::Number))->number($total->times->constant);
        $this->alongPlaces = $columns->positionsOf($total->columnsAlong($side));
        $names = $total->groupColumns($side);
        $this->groupPlaces = $columns->positionsOf($names);
        $pairs = array_map(static fn(array $by): ColumnPair|KeyColumn|null => PairedForm::pairOf($plan, $by), $total->by);
        $this->groupReadings = array_map(static fn(string $name): Reading => $rules->reading($name, Kind::Text), $names);
        $this->groupForm = new KeyForm(
            $this->groupReadings,
            array_map(static fn(ColumnPair|KeyColumn|null $pair): array => $pair === null ? [] : $pair->forgives, $pairs),
            $forms,
        );
        $this->crosswalks = array_map(
            static fn(ColumnPair|KeyColumn|null $pair): array => PairedForm::crosswalk($pair, $side),
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

        return $this->reading->isLike($other->reading) && $this->unitReading->isLike($other->unitReading);
    }

    /** Whether a crosswalk leads from what stands in a group column to the group. */
    public function isTranslated(): bool
    {
        return array_filter($this->crosswalks) !== [];
    }

    /** @return list<int> of the cells that it looks at */
    public function places(): array
    {
        return [...$this->countedPlaces(), ...$this->alongPlaces];
    }

    /** @return list<int> of the cells that say how much a row adds, and to which group */
    public function countedPlaces(): array
    {
        return array_values(
            array_filter([$this->place, $this->unitPlace, ...$this->groupPlaces], static fn(?int $place): bool => $place !== null),
        );
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
        if ($this->place === null && $this->alongPlaces === []) {
            return $written === null ? ['' => $rows] : array_count_values($written);
        }
        $values = $columns[$this->place ?? $this->alongPlaces[0]];
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
            $this->memo[$written] = $this->meetsLabels($this->labelsOf($written));
        }

        return $this->memo[$written];
    }

    /** @param list<string> $labels of a group that this side has */
    public function meetsLabels(array $labels): string
    {
        return $this->groupForm->canonical($labels);
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
            Measure::Blanks => $this->reading->isBlank($cell) ? self::one() : Decimal::zero(),
            default => $this->reading->isBlank($cell) ? Decimal::zero() : $this->times($this->number($cell), $this->unitIn($cells)),
        };
    }

    /**
     * Whether there is a quantity, and nothing that says what one of it is worth.
     *
     * @param  list<string>  $cells  of a row
     */
    public function lacksUnit(array $cells): bool
    {
        return $this->hasUnit() && ! $this->reading->isBlank($cells[(int) $this->place]) && $this->unitIn($cells) === null;
    }

    public function hasUnit(): bool
    {
        return $this->total->times !== null;
    }

    /**
     * What one of the quantity is worth.
     *
     * @param  array<int, string>  $cells  of a row, by their place
     * @return Decimal|null null where nothing is, or it cannot be read
     */
    public function unitIn(array $cells): ?Decimal
    {
        return $this->unitPlace === null ? $this->unitForAll : $this->unit($cells[$this->unitPlace]);
    }

    /** @param array<int, list<string>> $columns the same of many rows, by the place of their cells */
    public function unitOf(array $columns, int $row): ?Decimal
    {
        return $this->unitPlace === null ? $this->unitForAll : $this->unit($columns[$this->unitPlace][$row]);
    }

    private function unit(string $cell): ?Decimal
    {
        $number = $this->unitReading->isBlank($cell) ? null : $this->unitReading->number($cell);

        return $number?->canBeSummed() === true ? $number : null;
    }

    /** @return Decimal|null null where one of them is missing, or the amount has too many digits to be added up */
    public function times(?Decimal $quantity, ?Decimal $unit): ?Decimal
    {
        if ($quantity === null || ! $this->hasUnit()) {
            return $quantity;
        }
        $amount = $unit === null ? null : $quantity->times($unit);

        return $amount?->canBeSummed() === true ? $amount : null;
    }

    /** One writing for all values of a column that is read along, as its pair takes them for the same. */
    public function canonicalAlong(string $cell, int $nth): string
    {
        return $this->alongForms[$nth]->of($cell);
    }

    /** One writing for all values that its pair takes for the same. */
    public function canonical(string $cell): string
    {
        return $this->valueForm->of($cell);
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
}
