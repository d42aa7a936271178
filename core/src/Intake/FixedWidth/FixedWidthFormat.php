<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\FixedWidth;

use NineTally\Core\Intake\Delimited\LineEnds;
use NineTally\Core\Intake\Encoding;
use NineTally\Core\Intake\TextLines;

/**
 * How text of fixed width is to be read: each column begins at a place of the line and ends where the next one begins. The spaces
 * that fill a column up are no part of its values.
 *
 * @phpstan-type FixedWidthDocument array{starts?: list<int>, lineEnds?: string, byteOrderMark?: bool, encoding?: string, header?: bool,
 *     skipAbove?: int, skipBelow?: int, ...}
 */
final readonly class FixedWidthFormat
{
    /** @var non-empty-list<int> characters before each column, rising from 0 */
    public array $starts;

    /** @param list<int> $starts in any order; that a column begins at 0 goes without saying */
    public function __construct(
        array $starts,
        public LineEnds $lineEnds = LineEnds::Lf,
        public bool $hasByteOrderMark = false,
        public Encoding $encoding = Encoding::Utf8,
        public bool $hasHeader = true,
        public int $skipAbove = 0,
        public int $skipBelow = 0,
    ) {
        $starts = array_unique([0, ...array_filter($starts, static fn(int $start): bool => $start > 0)]);
        sort($starts);
        $this->starts = $starts;
    }

    /** @param FixedWidthDocument $found as toArray() writes it */
    public static function fromArray(array $found): self
    {
        return new self(
            $found['starts'] ?? [],
            LineEnds::from($found['lineEnds'] ?? LineEnds::Lf->value),
            $found['byteOrderMark'] ?? false,
            Encoding::from($found['encoding'] ?? Encoding::Utf8->value),
            $found['header'] ?? true,
            $found['skipAbove'] ?? 0,
            $found['skipBelow'] ?? 0,
        );
    }

    /**
     * @return array{starts: list<int>, lineEnds: string, byteOrderMark: bool, encoding: string, header: bool, skipAbove: int,
     *     skipBelow: int}
     */
    public function toArray(): array
    {
        return [
            'starts' => $this->starts,
            'lineEnds' => $this->lineEnds->value,
            'byteOrderMark' => $this->hasByteOrderMark,
            'encoding' => $this->encoding->value,
            'header' => $this->hasHeader,
            'skipAbove' => $this->skipAbove,
            'skipBelow' => $this->skipBelow,
        ];
    }

    public function lines(string $path, string $name, int $rowLimit): TextLines
    {
        return new TextLines(
            $path,
            $name,
            $rowLimit,
            $this->encoding,
            ! $this->hasByteOrderMark ? 0 : ($this->encoding === Encoding::Utf8 ? 3 : 2),
        );
    }

    /** @return list<string> */
    public function cells(string $line): array
    {
        $cells = [];
        // Bytes are characters where all of them are ASCII, and cutting those is many times faster.
        $isAscii = preg_match('/[\x80-\xFF]/', $line) === 0;
        foreach ($this->starts as $nth => $start) {
            $length = isset($this->starts[$nth + 1]) ? $this->starts[$nth + 1] - $start : null;
            $cells[] = trim($isAscii ? substr($line, $start, $length) : mb_substr($line, $start, $length), ' ');
        }

        return $cells;
    }
}
