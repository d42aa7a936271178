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

/**
 * The rows whose key stands on one side alone, or on both, with any of their columns and what references say of them; or the distinct
 * values of some of these columns, with how many rows have them.
 *
 * @phpstan-type ListedColumn array{name: string, source: string|null, target: string|null}
 * @phpstan-type Line array{side: 'source'|'target', rows: array{source: int, target: int}, cells: list<string>}
 */
final readonly class RowsListed implements Question
{
    public const WHICH = ['source', 'target', 'either', 'both'];

    /** Lines that are shown; all of them can be taken away. */
    private const SHOWN = 1_000;

    private const MOST_VALUES = 200_000;

    /**
     * @param  string  $plan  as JSON: its key, its bridges and how both sides are read
     * @param  'source'|'target'|'either'|'both'  $which
     * @param  list<ListedColumn>  $columns  null where a side has none
     * @param  list<int>  $by  places of columns: one line for each combination of their values; none: one for each row
     */
    public function __construct(
        public BothSides $sides,
        private string $plan,
        private string $which,
        public array $columns,
        private array $by,
    ) {}

    public function kind(): string
    {
        return 'rows-listed';
    }

    public function about(): array
    {
        return [$this->sides->about(), $this->plan, $this->which, $this->columns, $this->by];
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
        $where = $this->which === 'both' ? RowsBySide::BOTH : RowsBySide::ALONE;
        foreach (Side::cases() as $side) {
            $isMeant = in_array($this->which, ['either', 'both', $side->value], true);
            $places = $rows->columnPlaces($side, array_column($this->columns, $side->value));
            foreach ($isMeant ? $rows->rows($side, $where) : [] as $row) {
                yield [
                    'side' => $side->value,
                    'rows' => ['source' => $side === Side::Source ? 1 : 0, 'target' => $side === Side::Target ? 1 : 0],
                    'cells' => self::cells($places, $row),
                ];
            }
        }
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
        $lines = [];
        foreach ($this->rowByRow($rows) as $line) {
            $values = implode("\0", array_map(static fn(int $place): string => $line['cells'][$place], $this->by));
            $lines[$values] ??= [...$line, 'rows' => ['source' => 0, 'target' => 0]];
            $lines[$values]['rows'][$line['side']]++;
            if (count($lines) > self::MOST_VALUES) {
                throw UnusableStep::because(sprintf(
                    'There are more than %s different values: too many for one line each. Choose columns with fewer, or list the rows.',
                    number_format(self::MOST_VALUES),
                ));
            }
        }
        uksort($lines, static fn(int|string $one, int|string $other): int => strnatcasecmp((string) $one, (string) $other)
            ?: strcmp((string) $one, (string) $other));

        return array_values($lines);
    }
}
