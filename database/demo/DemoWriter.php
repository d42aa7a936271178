<?php

declare(strict_types=1);

namespace Database\Demo;

/** Writes the rows of a side as a delimited file, and divides such a file among the offices that hand it over. */
final readonly class DemoWriter
{
    /**
     * @param  non-empty-string  $delimiter
     * @param  non-empty-string  $lineEnd
     * @param  string  $beginning  before the line of the column names
     */
    public function __construct(private string $delimiter, private string $lineEnd, private string $beginning = '') {}

    /** @param list<string> $refused raw records, which are no rows, spread among them */
    public function write(string $path, DemoRows $rows, array $refused): void
    {
        $lines = [];
        foreach ($rows->cells as $cells) {
            $lines[] = $this->line($cells);
        }
        foreach ($refused as $nth => $record) {
            array_splice($lines, (int) (count($lines) * ($nth + 1) / (count($refused) + 1)), 0, [$record]);
        }
        file_put_contents($path, $this->beginning.$this->ended([$this->line($rows->columns), ...$lines]));
    }

    /**
     * Divides a file whose records are a line each among the offices that handed it over, each with a last record that says how many rows
     * it has and what a column of them adds up to.
     *
     * @param  list<string>  $names  of the parts
     * @param  string  $totalled  a column of numbers with two digits behind the mark
     * @return list<string> paths of the parts
     */
    public function divide(string $path, array $names, string $totalled): array
    {
        $lines = explode($this->lineEnd, rtrim((string) file_get_contents($path), $this->lineEnd));
        $header = array_shift($lines);
        $place = (int) array_search($totalled, explode($this->delimiter, $header), true);
        $paths = [];
        foreach (array_chunk($lines, max(1, (int) ceil(count($lines) / count($names)))) as $nth => $some) {
            $total = array_sum(
                array_map(fn(string $line): int => (int) str_replace('.', '', explode($this->delimiter, $line)[$place]), $some),
            );
            $trailer = ['TRL', (string) count($some), sprintf('%d.%02d', intdiv($total, 100), $total % 100)];
            $paths[] = $part = dirname($path)."/{$names[$nth]}";
            file_put_contents($part, $this->ended([$header, ...$some, implode($this->delimiter, $trailer)]));
        }

        return $paths;
    }

    /** @param list<string> $lines */
    private function ended(array $lines): string
    {
        return implode($this->lineEnd, $lines).$this->lineEnd;
    }

    /** @param list<string> $cells */
    private function line(array $cells): string
    {
        return implode(
            $this->delimiter,
            array_map(
                fn(string $cell): string => strpbrk($cell, $this->delimiter."\"\r\n") === false
                    ? $cell
                    : '"'.str_replace('"', '""', $cell).'"',
                $cells,
            ),
        );
    }
}
