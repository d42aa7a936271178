<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Delimited;

use NineTally\Core\Intake\Batch;

/**
 * Reads a whole block of records with a few functions that run over all of it, instead of cell by cell.
 *
 * Quoted cells lose their quotes and hide their separators behind bytes that no UTF-8 text has; after that every separator
 * and line end is structure. A block in which anything is unusual is left to RecordAssembly. Measured on records of 12 cells,
 * 12 % with quotes: 0.3 microseconds a record, against 6 by RecordAssembly.
 */
final readonly class BlockReading
{
    private const HIDDEN = ['separator' => "\xFD", 'lineFeed' => "\xFC", 'return' => "\xFB", 'quote' => "\xFA"];

    private string $quotedCell;

    private string $within;

    private string $hidden;

    private string $structure;

    private string $separated;

    /** @param int $width cells of a record */
    public function __construct(DelimitedFormat $format, private int $width, private LineEndCount $lineEnds)
    {
        $delimiter = preg_quote($format->delimiter, '/');
        $this->quotedCell = "/(?<=^|[{$delimiter}\\n\\r])\"((?:[^\"]++|\"\")*+)\"(?=[{$delimiter}\\r\\n]|\$)/D";
        $this->within = $format->delimiter."\n\r";
        $this->hidden = self::HIDDEN['separator'].self::HIDDEN['lineFeed'].self::HIDDEN['return'];
        $this->structure = $format->delimiter."\n".$this->hidden.self::HIDDEN['quote'];
        $this->separated = Batch::CELL_END.Batch::ROW_END.$format->delimiter."\n\r\"";
    }

    /**
     * @param  string  $text  UTF-8; whole records, the last one without its line end
     * @param  int  $line  the physical line on which it begins
     * @return Batch|null null when a record in it is unusual: refused, blank, with a quote in the middle
     */
    public function read(string $text, int $line): ?Batch
    {
        // An empty pattern checks its subject and does nothing else: a fifth of the time of mb_check_encoding().
        if (preg_match('//u', $text) !== 1 || str_contains($text, "\0")) {
            return null;
        }
        $innerLineEnd = '';
        if (str_contains($text, '"')) {
            $text = preg_replace_callback($this->quotedCell, $this->hide(...), $text);
            if ($text === null || str_contains($text, '"')) {
                return null;
            }
            $innerLineEnd = match (true) {
                substr_count($text, self::HIDDEN['return']) > substr_count($text, self::HIDDEN['return'].self::HIDDEN['lineFeed'])
                    => "\r\n",
                str_contains($text, self::HIDDEN['lineFeed']) => "\n",
                default => '',
            };
        }
        $ended = $text;
        $text = strtr(LineEnds::asLf($text), $this->structure, $this->separated);
        if ($this->hasOddRow($text)) {
            return null;
        }
        $this->lineEnds->add($ended);

        return new Batch($text, $line, $innerLineEnd, self::hasBlankCell($text));
    }

    /** Whether quotes stand where they open or close no cell, so that counting them says nothing about where records end. */
    public function hasStrayQuotes(string $text): bool
    {
        return str_contains($text, '"') && str_contains((string) preg_replace($this->quotedCell, '', $text), '"');
    }

    /** Whether a record has another number of cells, or is blank. Row by row: one expression over the block takes longer. */
    private function hasOddRow(string $text): bool
    {
        $ends = $this->width - 1;
        foreach (explode(Batch::ROW_END, $text) as $row) {
            if ($row === '' || substr_count($row, Batch::CELL_END) !== $ends) {
                return true;
            }
        }

        return false;
    }

    private static function hasBlankCell(string $text): bool
    {
        return $text[0] === Batch::CELL_END ||
            $text[-1] === Batch::CELL_END ||
            str_contains($text, Batch::CELL_END.Batch::CELL_END) ||
            str_contains($text, Batch::CELL_END.Batch::ROW_END) ||
            str_contains($text, Batch::ROW_END.Batch::CELL_END);
    }

    /** @param array<array-key, string> $found */
    private function hide(array $found): string
    {
        $cell = $found[1];
        if (str_contains($cell, '"')) {
            $cell = str_replace('""', self::HIDDEN['quote'], $cell);
        }

        return strtr($cell, $this->within, $this->hidden);
    }
}
