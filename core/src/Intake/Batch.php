<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

use NineTally\Core\Intake\Delimited\LineEnds;
use NineTally\Core\Row\KeyTuple;

/**
 * Many rows as they came, still bytes: most will turn out to be equal to their counterpart, and no Row is ever built for those.
 *
 * The two bytes that separate them occur in no UTF-8 text (RFC 3629, section 1), so nothing is escaped.
 */
final readonly class Batch
{
    public const CELL_END = KeyTuple::SEPARATOR;

    public const ROW_END = "\xFE";

    /**
     * @param  string  $rows  cells joined by CELL_END, rows by ROW_END; each has the header's number of cells
     * @param  int  $firstLine  the physical line on which the first row begins
     * @param  string  $innerLineEnd  what ends lines inside rows: nothing, LF (CR LF too, which has one), or both where a CR alone does so
     *     too
     * @param  bool  $mayHaveBlanks  whether any cell may be empty
     */
    public function __construct(
        public string $rows,
        public int $firstLine,
        public string $innerLineEnd = '',
        public bool $mayHaveBlanks = true,
    ) {}

    /** @param string $rows as many, on the same lines */
    public function with(string $rows): self
    {
        return new self($rows, $this->firstLine, $this->innerLineEnd, $this->mayHaveBlanks);
    }

    /** How many physical lines a row of it has, or several rows joined by ROW_END. */
    public function linesOf(string $row): int
    {
        return 1 + substr_count($row, self::ROW_END) + match ($this->innerLineEnd) {
            '' => 0,
            "\n" => substr_count($row, "\n"),
            default => LineEnds::count($row),
        };
    }
}
