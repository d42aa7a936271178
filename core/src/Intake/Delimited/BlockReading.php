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

    /** An expression that counts more cells does not compile; in rows so wide, counting them one by one costs little. */
    private const WIDE = 500;

    private string $quotedCell;

    private string $within;

    private string $hidden;

    private string $structure;

    private string $separated;

    private string $evenRows;

    /** The same, of rows whose every cell holds something: most blocks are told by it alone. */
    private string $fullRows;

    /** @param int $width cells of a record */
    public function __construct(DelimitedFormat $format, private int $width, private LineEndCount $lineEnds)
    {
        $delimiter = preg_quote($format->delimiter, '/');
        $this->quotedCell = "/(?<=^|[{$delimiter}\\n\\r])\"((?:[^\"]++|\"\")*+)\"(?=[{$delimiter}\\r\\n]|\$)/D";
        $this->within = $format->delimiter."\n\r";
        $this->hidden = self::HIDDEN['separator'].self::HIDDEN['lineFeed'].self::HIDDEN['return'];
        $this->structure = $format->delimiter."\n".$this->hidden.self::HIDDEN['quote'];
        $this->evenRows = $width > self::WIDE ? '' : '/^(?:(?:[^\xFE\xFF]*+\xFF){'.($width - 1).'}[^\xFE\xFF]*+(?:\xFE|$))*+$/D';
        $this->fullRows = str_replace(']*+', ']++', $this->evenRows);
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
        $isFull =
            $this->width > 1 &&
            $this->fullRows !== '' &&
            $text !== '' &&
            $text[-1] !== Batch::ROW_END &&
            preg_match($this->fullRows, $text) === 1;
        $rows = $isFull ? 0 : substr_count($text, Batch::ROW_END) + 1;
        if (! $isFull && (substr_count($text, Batch::CELL_END) !== ($this->width - 1) * $rows || $this->hasOddRow($text))) {
            return null;
        }
        $this->lineEnds->add($ended);

        return new Batch($text, $line, $innerLineEnd, ! $isFull);
    }

    /** Whether quotes stand where they open or close no cell, so that counting them says nothing about where records end. */
    public function hasStrayQuotes(string $text): bool
    {
        return str_contains($text, '"') && str_contains((string) preg_replace($this->quotedCell, '', $text), '"');
    }

    /** Separators that add up may still be one too many here and one too few there. */
    private function hasOddRow(string $text): bool
    {
        if (
            str_contains($text, Batch::ROW_END.Batch::ROW_END) ||
            $text === '' ||
            $text[0] === Batch::ROW_END ||
            $text[-1] === Batch::ROW_END
        ) {
            return true;
        }

        if ($this->evenRows !== '') {
            return $this->width > 1 && preg_match($this->evenRows, $text) !== 1;
        }
        foreach (explode(Batch::ROW_END, $text) as $row) {
            if (substr_count($row, Batch::CELL_END) !== $this->width - 1) {
                return true;
            }
        }

        return false;
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
