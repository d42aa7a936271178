<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Delimited;

use NineTally\Core\Row\Columns;

/**
 * Takes one record apart, line by line, for a quoted cell may run over many lines (RFC 4180, section 2.6).
 *
 * A quote opens a quoted cell only at the cell's beginning: `12" hull` is a value like any other. Holds the record that is
 * open, and looks at each byte once however many lines the record has.
 */
final class RecordParser
{
    /** No table is as wide, and a line may hold millions of delimiters: what is beyond stays in the last cell. */
    private const MOST_CELLS = Columns::MOST + 2;

    /** @var list<string> */
    private array $cells = [];

    /** What the open quoted cell holds so far: one text, for a cell may have millions of lines. */
    private ?string $open = null;

    private bool $malformed = false;

    /** @param non-empty-string $delimiter one byte */
    public function __construct(private readonly string $delimiter) {}

    public function isOpen(): bool
    {
        return $this->open !== null;
    }

    /** Whether something other than a delimiter followed a closing quote in the record last returned. */
    public function isMalformed(): bool
    {
        return $this->malformed;
    }

    /** @return list<string>|null the cells, or null when a quoted cell goes on in the next line */
    public function begin(string $line): ?array
    {
        $this->malformed = false;
        if (! str_contains($line, '"')) {
            return explode($this->delimiter, $line, self::MOST_CELLS);
        }
        $this->cells = [];

        return $this->cellsFrom($line, 0);
    }

    /** The bytes that end a line on which a quoted cell goes on belong to the cell. */
    public function addInside(string $lineEnd): void
    {
        $this->open .= $lineEnd;
    }

    /** @return list<string>|null */
    public function goOn(string $line): ?array
    {
        return $this->quotedCell($line, 0);
    }

    /** Forgets an open record. */
    public function reset(): void
    {
        $this->open = null;
        $this->cells = [];
    }

    /** @return list<string>|null */
    private function cellsFrom(string $line, int $start): ?array
    {
        while (true) {
            if (($line[$start] ?? '') === '"') {
                $this->open = '';

                return $this->quotedCell($line, $start + 1);
            }
            $end = strpos($line, $this->delimiter, $start);
            if ($end === false || count($this->cells) === self::MOST_CELLS - 1) {
                $this->cells[] = substr($line, $start);

                return $this->cells;
            }
            $this->cells[] = substr($line, $start, $end - $start);
            $start = $end + 1;
        }
    }

    /** @return list<string>|null */
    private function quotedCell(string $line, int $start): ?array
    {
        $search = $start;
        while (($quote = strpos($line, '"', $search)) !== false) {
            $next = $line[$quote + 1] ?? '';
            if ($next === '"') {
                $search = $quote + 2;

                continue;
            }
            $this->open .= str_replace('""', '"', substr($line, $start, $quote - $start));
            $this->cells[] = (string) $this->open;
            $this->open = null;
            if ($next === '') {
                return $this->cells;
            }
            $this->malformed = $this->malformed || $next !== $this->delimiter;

            return $next === $this->delimiter ? $this->cellsFrom($line, $quote + 2) : $this->cells;
        }
        $this->open .= str_replace('""', '"', substr($line, $start));

        return null;
    }
}
