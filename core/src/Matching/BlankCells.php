<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Value\Reading;

/**
 * Counts the cells without a value in the compared columns of a side, block by block: rows that agree are never taken apart, and the
 * figures need to know how many of their cells hold anything.
 */
final readonly class BlankCells
{
    /** With more blanks in a row than this, taking each row apart costs less than finding them. */
    private const FEW = 2;

    private bool $hasTokens;

    /** A separator before a cell that may be blank, and that cell. */
    private string $candidate;

    /** @var array<int, list<int>> by position: the column pairs of that column */
    private array $pairs;

    /**
     * @param  list<int>  $positions  of the compared columns, by column pair
     * @param  list<Reading>  $readings  of them, by column pair
     */
    public function __construct(array $positions, private array $readings)
    {
        $pairs = $tokens = [];
        foreach ($positions as $pair => $position) {
            $pairs[$position][] = $pair;
            foreach ($readings[$pair]->blankTokens as $token) {
                $tokens[$token] = preg_quote($token, '/');
            }
        }
        $this->pairs = $pairs;
        $this->hasTokens = $tokens !== [];
        $this->candidate = '/[\xFF\xFE]('.implode('|', $tokens).($tokens === [] ? '' : '|').')(?=[\xFF\xFE])/';
    }

    public function count(Batch $batch, ScanResult $result): void
    {
        if (! $this->hasTokens && ! $batch->mayHaveBlanks) {
            return;
        }
        $text = Batch::ROW_END.$batch->rows.Batch::ROW_END;
        $isSparse = substr_count($text, Batch::CELL_END.Batch::CELL_END) > self::FEW * (substr_count($text, Batch::ROW_END) - 1);
        if ($isSparse || preg_match_all($this->candidate, $text, $found, PREG_OFFSET_CAPTURE) === false) {
            $this->countEach($batch, $result);

            return;
        }
        $length = strlen($text);
        foreach ($found[1] ?? [] as [$cell, $offset]) {
            $row = (int) strrpos($text, Batch::ROW_END, $offset - 1 - $length);
            $this->countAt(substr_count($text, Batch::CELL_END, $row, $offset - $row), $cell, $result);
        }
    }

    private function countEach(Batch $batch, ScanResult $result): void
    {
        foreach (explode(Batch::ROW_END, $batch->rows) as $row) {
            $cells = explode(Batch::CELL_END, $row);
            foreach ($this->pairs as $position => $pairs) {
                $this->countAt($position, $cells[$position], $result);
            }
        }
    }

    private function countAt(int $position, string $cell, ScanResult $result): void
    {
        foreach ($this->pairs[$position] ?? [] as $pair) {
            if ($this->readings[$pair]->isBlank($cell)) {
                $result->blanks[$pair] = ($result->blanks[$pair] ?? 0) + 1;
            }
        }
    }
}
