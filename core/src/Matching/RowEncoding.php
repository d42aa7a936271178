<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Intake\Batch;

/**
 * How the bytes of a side's rows are put aside so that equal rows are equal bytes.
 *
 * The body is what is compared, and what control totals look at besides. Where both sides have the same columns in the same order it is
 * the row as it came, and is never split; else it is the paired cells in the order of the plan, then those of the totals; the rest, key
 * cells first, is kept beside it.
 */
final readonly class RowEncoding
{
    /** Stands between rest and body; no UTF-8 text holds it. */
    public const BODY = "\xFD";

    /** References in a replacement have two digits at most. */
    private const MOST_REFERENCES = 99;

    private ?string $pattern;

    private string $replacement;

    /** Whether the key is what a row begins with, so that it can be cut off. */
    public bool $keyComesFirst;

    /** Whether nothing but the key is left beside the body, so that the rest need not be kept where the key is. */
    public bool $restIsKey;

    /** @var list<int> positions of the body, compared ones first */
    private array $bodyPositions;

    /** Whether a cell stands in an arranged row twice, such as one of the key that is compared too. */
    public bool $repeatsCells;

    /** @var list<int> positions of the rest, key first; empty for whole rows */
    public array $restPositions;

    /** @var array<int, int> position in the row => position in body and rest together */
    private array $order;

    /**
     * @param  list<int>  $keyPositions
     * @param  list<int>  $pairedPositions  in the order of the plan's column pairs
     * @param  bool  $isWhole  whether the body is the whole row
     * @param  list<int>  $totalledPositions  that no column pair compares, and a control total looks at
     */
    public function __construct(
        public array $keyPositions,
        public array $pairedPositions,
        private int $width,
        public bool $isWhole,
        array $totalledPositions = [],
    ) {
        $this->bodyPositions = [...$pairedPositions, ...$totalledPositions];
        $this->keyComesFirst = $keyPositions === range(0, count($keyPositions) - 1);
        $this->restPositions = $isWhole
            ? []
            : [...$keyPositions, ...array_values(array_diff(range(0, $width - 1), $keyPositions, $this->bodyPositions))];
        $arranged = [...$this->restPositions, ...$this->bodyPositions];
        $this->repeatsCells = ! $isWhole && count(array_unique($arranged)) < count($arranged);
        $this->restIsKey = ! $isWhole && count($this->restPositions) === count($keyPositions);
        $this->pattern =
            $isWhole || $width > self::MOST_REFERENCES ? null : '/'.implode('\xFF', array_fill(0, $width, '([^\xFF\xFE]*+)')).'/';
        $reference = static fn(int $position): string => sprintf('${%d}', $position + 1);
        $this->replacement =
            implode(Batch::CELL_END, array_map($reference, $this->restPositions)).
            self::BODY.
            implode(Batch::CELL_END, array_map($reference, $this->bodyPositions));
        $this->order = array_flip(array_reverse([...$this->bodyPositions, ...$this->restPositions], true));
    }

    /** @return list<int> where the paired cells stand in an exploded body */
    public function comparedPositions(): array
    {
        return $this->isWhole ? $this->pairedPositions : array_keys($this->pairedPositions);
    }

    /**
     * Puts the cells of many rows at once in the order of rest and body, with BODY between them: key first, what is compared last.
     *
     * One replacement over all rows: 0.5 microseconds a row of 12 cells, where taking each apart and putting it together again costs 2.
     */
    public function arranged(string $rows): string
    {
        if ($this->pattern === null) {
            return implode(Batch::ROW_END, array_map($this->arrangedRow(...), explode(Batch::ROW_END, $rows)));
        }

        return (string) preg_replace($this->pattern, $this->replacement, $rows);
    }

    private function arrangedRow(string $row): string
    {
        $cells = explode(Batch::CELL_END, $row);
        $pick = static fn(int $position): string => $cells[$position];

        return implode(Batch::CELL_END, array_map($pick, $this->restPositions)).
            self::BODY.
            implode(Batch::CELL_END, array_map($pick, $this->bodyPositions));
    }

    /** The row as it came. */
    public function row(string $body, string $rest): string
    {
        if ($this->isWhole) {
            return $body;
        }
        $cells = explode(Batch::CELL_END, $this->bodyPositions === [] ? $rest : $body.Batch::CELL_END.$rest);
        $order = $this->order;
        $row = [];
        for ($position = 0; $position < $this->width; $position++) {
            $row[] = $cells[$order[$position]];
        }

        return implode(Batch::CELL_END, $row);
    }
}
