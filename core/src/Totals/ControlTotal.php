<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

use NineTally\Core\Row\Side;
use NineTally\Core\Value\Kind;

/**
 * A figure that both sides must have in common: taken of a column pair, or of rows, over all rows or by group.
 *
 * @phpstan-type TotalDocument array{measure: string, source?: string, target?: string, kind?: string, by?: list<array{source: string,
 *     target: string}>, over?: string, times?: UnitDocument, along?: list<array{source: string, target: string}>}
 *
 * @phpstan-import-type UnitDocument from UnitValue
 */
final readonly class ControlTotal
{
    public const MOST_GROUP_COLUMNS = 3;

    /**
     * @param  string|null  $source  the column of the source; null where rows are counted
     * @param  Kind  $kind  as what the values of the least and the greatest are read
     * @param  list<array{source: string, target: string}>  $by  group columns
     * @param  UnitValue|null  $times  what makes an amount of each summed quantity
     * @param  list<array{source: string, target: string}>  $along  columns to be read beside each group, which do not divide it
     */
    public function __construct(
        public Measure $measure,
        public ?string $source = null,
        public ?string $target = null,
        public array $by = [],
        public Basis $over = Basis::Prepared,
        public Kind $kind = Kind::Number,
        public ?UnitValue $times = null,
        public array $along = [],
    ) {}

    /** @param TotalDocument $document */
    public static function fromArray(array $document): self
    {
        return new self(
            Measure::from($document['measure']),
            $document['source'] ?? null,
            $document['target'] ?? null,
            $document['by'] ?? [],
            Basis::from($document['over'] ?? Basis::Prepared->value),
            Kind::from($document['kind'] ?? Kind::Number->value),
            isset($document['times']) ? UnitValue::fromArray($document['times']) : null,
            $document['along'] ?? [],
        );
    }

    /** @return array<string, mixed> as the plan writes it: what is as it would be by itself is left out */
    public function toArray(): array
    {
        return [
            'measure' => $this->measure->value,
            ...array_filter([
                'source' => $this->source,
                'target' => $this->target,
                'kind' => $this->kind === Kind::Number ? null : $this->kind->value,
                'by' => $this->by,
                'over' => $this->over === Basis::Prepared ? null : $this->over->value,
                'times' => $this->times?->toArray(),
                'along' => $this->along,
            ]),
        ];
    }

    /** What it is, such as "sum of fee". */
    public function name(): string
    {
        $column = self::pair($this->source ?? '', $this->target ?? '');

        return match ($this->measure) {
            Measure::Rows => 'number of rows',
            Measure::Sum => "sum of {$column}{$this->unitName()}",
            Measure::Blanks => "blank cells of {$column}",
            Measure::Distinct => "distinct values of {$column}",
            Measure::Least => "least {$column}",
            Measure::Greatest => "greatest {$column}",
        };
    }

    private function unitName(): string
    {
        return match (true) {
            $this->times === null => '',
            $this->times->constant !== null => " × {$this->times->constant}",
            default => ' × '.self::pair((string) $this->times->column(Side::Source), (string) $this->times->column(Side::Target)),
        };
    }

    /** @return string '' where there are no groups */
    public function groupNames(): string
    {
        return implode(' and ', array_map(static fn(array $by): string => self::pair($by['source'], $by['target']), $this->by));
    }

    public function sentence(): string
    {
        $by = $this->by === [] ? '' : " by {$this->groupNames()}";

        return $this->name().$by.match ($this->over) {
            Basis::Delivered => ' over delivered rows',
            Basis::Prepared => '',
            Basis::Matched => ' over rows that matched',
        };
    }

    private static function pair(string $source, string $target): string
    {
        return $source === $target ? $source : "{$source} / {$target}";
    }

    public function column(Side $side): ?string
    {
        return $side === Side::Source ? $this->source : $this->target;
    }

    /** @return list<string> */
    public function groupColumns(Side $side): array
    {
        return array_column($this->by, $side->value);
    }

    /** @return list<string> columns that are read beside each group */
    public function columnsAlong(Side $side): array
    {
        return array_column($this->along, $side->value);
    }

    /** @return list<array{source: string, target: string}> the columns whose values its figures are made of */
    public function pairs(): array
    {
        $pairs = $this->by;
        foreach ([$this, $this->times] as $of) {
            [$source, $target] = [$of?->column(Side::Source), $of?->column(Side::Target)];
            if ($source !== null && $target !== null) {
                $pairs[] = ['source' => $source, 'target' => $target];
            }
        }

        return $pairs;
    }

    /** @return array<string, string> place within the total => the column of that side that is named there */
    public function namesByPlace(Side $side): array
    {
        $names = $this->column($side) === null ? [] : ["/{$side->value}" => $this->column($side)];
        foreach ($this->groupColumns($side) as $nth => $name) {
            $names["/by/{$nth}/{$side->value}"] = $name;
        }
        foreach ($this->columnsAlong($side) as $nth => $name) {
            $names["/along/{$nth}/{$side->value}"] = $name;
        }
        $unit = $this->times?->column($side);
        if ($unit !== null) {
            $names["/times/{$side->value}"] = $unit;
        }

        return $names;
    }
}
