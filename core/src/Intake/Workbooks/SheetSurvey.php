<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Workbooks;

use NineTally\Core\Intake\PartKind;
use NineTally\Core\Intake\TableEdges;
use NineTally\Core\Intake\UnreadableFile;

/** Where in a sheet the table stands, as far as its rows and its merged cells tell. */
final readonly class SheetSurvey
{
    /** Rows that are looked at from the top. */
    private const ROWS = 60;

    /** A larger workbook is not read to its end before somebody has said that it is the right one. */
    private const MOST_BYTES_TO_END = 8 * 1024 * 1024;

    private const MOST_BELOW = 12;

    /** Of the cells that most rows fill, so many are filled by a row of names. */
    private const NEARLY_FULL = 0.6;

    /** @param array<int, list<string>> $rows from the top, by their number, those that hold something */
    private function __construct(
        private string $path,
        private PartKind $kind,
        private string $sheet,
        private array $rows,
        private int $usual,
    ) {}

    public static function of(string $path, string $name, PartKind $kind, string $sheet): self
    {
        $workbook = Workbook::open($path, $name, $kind);
        try {
            return self::in($workbook, $path, $kind, $sheet);
        } finally {
            $workbook->close();
        }
    }

    /**
     * In a workbook that is open: what its sheets share is unpacked once.
     *
     * @throws UnreadableFile
     */
    public static function in(Workbook $workbook, string $path, PartKind $kind, string $sheet): self
    {
        $rows = [];
        foreach ($workbook->rows($sheet) as $number => $cells) {
            if ($number > self::ROWS) {
                break;
            }
            if (TableEdges::filled($cells) !== []) {
                $rows[$number] = $cells;
            }
        }

        return new self($path, $kind, $sheet, $rows, TableEdges::usualFilled($rows));
    }

    /** How much of a table there is: cells of rows that are filled as most are. One row, or one column, is hardly one. */
    public function weight(): int
    {
        $alike = array_filter($this->rows, fn(array $cells): bool => count(TableEdges::filled($cells)) === $this->usual);

        return $this->usual < 2 || count($alike) < 2 ? 0 : $this->usual * count($alike);
    }

    /** Columns to the left of everything that was looked at. */
    public function skipLeft(): int
    {
        $first = array_map(static fn(array $cells): int => (int) array_key_first(TableEdges::filled($cells)), $this->rows);

        return $first === [] ? 0 : min($first);
    }

    /** @return list<string> what stands in a row, in the order of the alphabet */
    public function namesIn(int $row): array
    {
        $rowOrNext = array_filter($this->rows, static fn(int $number): bool => $number >= $row, ARRAY_FILTER_USE_KEY);
        $names = array_map(trim(...), array_values(TableEdges::filled(reset($rowOrNext) ?: [])));
        sort($names);

        return $names;
    }

    /** @param list<string> $names of the columns of another sheet: whether they stand here too, in any order, with rows below */
    public function hasNames(array $names): bool
    {
        $isAlike = fn(int $row): bool => $this->namesIn($row) === $names;

        return count($names) > 1 && $this->weight() > 0 && array_filter(array_slice(array_keys($this->rows), 0, -1), $isAlike) !== [];
    }

    /** @return array{int, string} the row on which the names of the columns stand, from 1, and why in words */
    public function headerRow(): array
    {
        $numbers = array_keys($this->rows);
        $first = $numbers[0] ?? 1;
        $place = 0;
        $widest = max(0, ...array_map(static fn(array $cells): int => count(TableEdges::filled($cells)), array_values($this->rows)));
        $merged = MergedCells::of($this->path, $this->kind, $this->sheet, end($numbers) ?: 1);
        while (isset($numbers[$place + 1])) {
            [$row, $next] = [$this->rows[$numbers[$place]], $this->rows[$numbers[$place + 1]]];
            $below = array_map(fn(int $number): array => $this->rows[$number], array_slice($numbers, $place + 2, 30));
            $filled = count(TableEdges::filled($row));
            $isTitle = $this->usual > 1 && $filled < max(2, self::NEARLY_FULL * $this->usual);
            $isOver = TableEdges::isOver($row, $next, $below) ||
                // A full row holds no cell that is merged with another.
                ($filled < $widest && $merged->areNamesOver($numbers[$place], TableEdges::filled($next)));
            if (! $isTitle && ! $isOver) {
                break;
            }
            $place++;
        }
        // Where nothing is filled as a row of names is, nothing was found.
        $row = isset($numbers[$place + 1]) || count($numbers) === 1 ? $numbers[$place] ?? 1 : $first;

        return $row === $first
            ? [1, 'the first row that is not blank']
            : [$row, 'the first row below titles, and names over several columns'];
    }

    /**
     * @param  int  $headerRow  on which the names stand
     * @return array{int, string} rows that hold something below the table, and which, in words
     *
     * @throws UnreadableFile
     */
    public function below(string $name, int $headerRow): array
    {
        if ((int) @filesize($this->path) > self::MOST_BYTES_TO_END || ! isset($this->rows[$headerRow])) {
            return [0, ''];
        }
        $last = [];
        $workbook = Workbook::open($this->path, $name, $this->kind);
        try {
            foreach ($workbook->rows($this->sheet) as $number => $cells) {
                if ($number > $headerRow && TableEdges::filled($cells) !== []) {
                    $last[$number] = $cells;
                    if (count($last) > self::MOST_BELOW) {
                        unset($last[array_key_first($last)]);
                    }
                }
            }
        } finally {
            $workbook->close();
        }
        $width = count(TableEdges::filled($this->rows[$headerRow]));
        $below = 0;
        $isTotal = $isLoose = false;
        $underneath = null;
        foreach (array_reverse(array_slice($last, 1, preserve_keys: true), true) as $number => $cells) {
            $isLoose = $isLoose && $underneath === $number + 1;
            if (TableEdges::isTotal($cells, $width)) {
                $isTotal = true;
                $isLoose = false;
            } elseif (TableEdges::mayBeNote($cells, $width)) {
                $isLoose = ! TableEdges::isSentence($cells);
            } else {
                break;
            }
            $underneath = $number;
            $below++;
        }

        return $below === 0 || $isLoose ? [0, ''] : [$below, TableEdges::leftOutBelow($below, 'row', $isTotal)];
    }
}
