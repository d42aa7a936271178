<?php

declare(strict_types=1);

namespace App\Questions;

use App\Adapters\Deliveries\PreparedSides;
use NineTally\Core\Intake\Reader;
use NineTally\Core\NineTallyException;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Preparation\UnusableStep;
use NineTally\Core\Row\Row;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\RowsBySide;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\ValueOrder;

/**
 * The rows whose key stands on one side alone, or on both, with any of their columns and what references say of them; or the distinct
 * values of some of these columns, with how many rows have them.
 *
 * @phpstan-type ListedColumn array{name: string, source: string|null, target: string|null}
 * @phpstan-type Span array{source: string|null, target: string|null, kind: string}
 * @phpstan-type Line array{side: 'source'|'target', rows: array{source: int, target: int}, lines: array{source: string, target: string},
 *     cells: list<string>, span: array{string, string}|null}
 */
final readonly class RowsListed implements Question
{
    public const WHICH = ['source', 'target', 'either', 'both', 'all'];

    /** Lines that are shown; all of them can be taken away. */
    private const SHOWN = 1_000;

    private const MOST_VALUES = 200_000;

    /**
     * @param  string  $plan  as JSON: its key, its bridges and how both sides are read
     * @param  'source'|'target'|'either'|'both'|'all'  $which
     * @param  list<ListedColumn>  $columns  null where a side has none
     * @param  list<int>  $by  places of columns: one line for each combination of their values; none: one for each row
     * @param  Span|null  $span  columns of which the lowest and the highest value of a combination are told
     */
    public function __construct(
        public BothSides $sides,
        private string $plan,
        private string $which,
        public array $columns,
        private array $by,
        public ?array $span = null,
    ) {}

    public function kind(): string
    {
        return 'rows-listed';
    }

    public function about(): array
    {
        return [$this->sides->about(), $this->plan, $this->which, $this->columns, $this->by, $this->span];
    }

    /** @return array{counts: array<'source'|'target', array{alone: int, both: int, unkeyed: int}>, lines: list<Line>, total: int} */
    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        return $material->withFolder(function (string $folder) use ($material, $onProgress): array {
            $rows = $this->rows($material->sides, $folder, $onProgress);
            $lines = [];
            $total = 0;
            foreach ($this->linesOf($rows) as $line) {
                if (++$total <= self::SHOWN) {
                    $lines[] = $line;
                }
            }

            return ['counts' => $rows->counts()->named(), 'lines' => $lines, 'total' => $total];
        });
    }

    /**
     * All of them, to be taken away.
     *
     * @return \Generator<int, Line>
     *
     * @throws NineTallyException
     */
    public function lines(PreparedSides $sides, string $folder): \Generator
    {
        yield from $this->linesOf($this->rows($sides, $folder));
    }

    public function isOfValues(): bool
    {
        return $this->by !== [];
    }

    private function rows(PreparedSides $sides, string $folder, ?\Closure $onProgress = null): RowsBySide
    {
        return new RowsBySide(
            Plan::fromJson($this->plan),
            Sides::each(fn(Side $side): Reader => $this->sides->prepared($sides, $side)),
            $folder,
            $onProgress,
        );
    }

    /** @return \Generator<int, Line> */
    private function linesOf(RowsBySide $rows): \Generator
    {
        yield from $this->by === [] ? $this->rowByRow($rows) : $this->valueByValue($rows);
    }

    /** @return \Generator<int, Line> */
    private function rowByRow(RowsBySide $rows): \Generator
    {
        foreach (Side::cases() as $side) {
            $places = $rows->columnPlaces($side, array_column($this->columns, $side->value));
            [$spanned] = $rows->columnPlaces($side, [$this->span[$side->value] ?? null]);
            foreach ($this->meant($rows, $side) as $row) {
                $value = $spanned === null ? '' : $row->cells[$spanned];
                $place = $rows->placeOf($side, $row);
                yield [
                    'side' => $side->value,
                    'rows' => ['source' => $side === Side::Source ? 1 : 0, 'target' => $side === Side::Target ? 1 : 0],
                    'lines' => ['source' => $side === Side::Source ? $place : '', 'target' => $side === Side::Target ? $place : ''],
                    'cells' => self::cells($places, $row),
                    'span' => $this->span === null ? null : [$value, $value],
                ];
            }
        }
    }

    /** @return iterable<Row> */
    private function meant(RowsBySide $rows, Side $side): iterable
    {
        if ($this->which === 'all') {
            return $rows->rows($side);
        }
        $where = $this->which === 'both' ? RowsBySide::BOTH : RowsBySide::ALONE;

        return in_array($this->which, ['either', 'both', $side->value], true) ? $rows->rows($side, $where) : [];
    }

    /**
     * @param  list<int|null>  $places
     * @return list<string>
     */
    private static function cells(array $places, Row $row): array
    {
        return array_map(static fn(?int $place): string => $place === null ? '' : $row->cells[$place], $places);
    }

    /**
     * @return list<Line> in the order of the values
     *
     * @throws UnusableStep when there are too many
     */
    private function valueByValue(RowsBySide $rows): array
    {
        $lines = $ends = [];
        $order = $this->order();
        foreach ($this->rowByRow($rows) as $line) {
            [$values, $side] = [
                implode("\0", array_map(static fn(int $place): string => $line['cells'][$place], $this->by)),
                $line['side'],
            ];
            $ends["{$values}\0\0{$side}"] = $line['lines'][$side];
            if (! isset($lines[$values])) {
                $lines[$values] = $line;
            } else {
                $before = $lines[$values];
                $lines[$values]['rows'][$side]++;
                $lines[$values]['lines'][$side] = $before['lines'][$side] === '' ? $line['lines'][$side] : $before['lines'][$side];
                $lines[$values]['span'] = $order === null || $line['span'] === null || $before['span'] === null
                    ? null
                    : self::wider($before['span'], $line['span'][0], $order->of(Side::from($side)));
            }
            if (count($lines) > self::MOST_VALUES) {
                throw UnusableStep::because(sprintf(
                    'There are more than %s different values: too many for one line each. Choose columns with fewer, or list the rows.',
                    number_format(self::MOST_VALUES),
                ));
            }
        }
        uksort($lines, static fn(int|string $one, int|string $other): int => strnatcasecmp((string) $one, (string) $other)
            ?: strcmp((string) $one, (string) $other));

        foreach ($lines as $values => $line) {
            foreach (Side::cases() as $side) {
                $last = $ends["{$values}\0\0{$side->value}"] ?? '';
                $lines[$values]['lines'][$side->value] .= $last === $line['lines'][$side->value] ? '' : " … {$last}";
            }
        }

        return array_values($lines);
    }

    /**
     * @param  array{string, string}  $span
     * @return array{string, string} lowest and highest; what is blank or cannot be read is neither, unless nothing else is there
     */
    private static function wider(array $span, string $value, ValueOrder $order): array
    {
        $rank = $order->rank($value);
        [$lowest, $highest] = [$order->rank($span[0]), $order->rank($span[1])];

        return $rank === null ? $span : [
            $lowest === null || $order->compare($rank, $lowest) < 0 ? $value : $span[0],
            $highest === null || $order->compare($rank, $highest) > 0 ? $value : $span[1],
        ];
    }

    /** @return Sides<ValueOrder>|null */
    private function order(): ?Sides
    {
        $span = $this->span;

        return $span === null ? null : Sides::each(fn(Side $side): ValueOrder => new ValueOrder(
            $this->sides->rules($side)->preparation->formsBehind()->reading($span[$side->value] ?? '', Kind::from($span['kind'])),
        ));
    }
}
