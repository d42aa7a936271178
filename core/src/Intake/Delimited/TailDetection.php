<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Delimited;

use NineTally\Core\Intake\ByteStream;
use NineTally\Core\Intake\TableEdges;

/**
 * Finds lines below a table that are no rows of it: totals, and notes. A record that is cut off is never taken for one of them, so a line
 * without a delimiter is a note only where a blank line, or a line of the table's width, divides it from the table.
 */
final readonly class TailDetection
{
    private const TAIL_BYTES = 65_536;

    private const MOST_LINES = 20;

    /**
     * @param  int  $width  cells of a row
     * @return array{int, string} lines below the table, and which, in words; none where they are packed away
     */
    public static function below(string $path, DelimitedFormat $format, int $width): array
    {
        $lines = self::lines($path, $format);
        $parser = new RecordParser($format->delimiter);
        $skipped = 0;
        $isTotal = $isLoose = $meetsRow = false;
        for ($place = count($lines) - 1; $place > 0 && count($lines) - $place <= self::MOST_LINES; $place--) {
            $cells = $parser->begin($lines[$place]);
            if ($cells === null || $parser->isMalformed()) {
                // A cell over several lines: what stands in it is no line of its own.
                return [0, ''];
            }
            if (TableEdges::filled($cells) === []) {
                // What divides notes from the table goes with them; by itself it may be a row of blanks.
                $isLoose = false;
                $skipped = $skipped > 0 ? count($lines) - $place : 0;

                continue;
            }
            $isFull = count($cells) === $width;
            if ($isFull && TableEdges::isTotal($cells, $width)) {
                $isTotal = true;
                $isLoose = false;
            } elseif ($isFull ? TableEdges::mayBeNote($cells, $width) : count($cells) === 1 && $width > 1) {
                // A cell alone in its line may be what is left of a row that was cut off.
                $isLoose = ! $isFull || ! TableEdges::isSentence($cells);
            } else {
                $meetsRow = $isFull;
                break;
            }
            $skipped = count($lines) - $place;
        }
        if (! $meetsRow || $isLoose) {
            return [0, ''];
        }

        return [$skipped, TableEdges::leftOutBelow($skipped, 'line', $isTotal)];
    }

    /** @return list<string> the last of them, without the blank ones at the very end */
    private static function lines(string $path, DelimitedFormat $format): array
    {
        $stream = ByteStream::open($path, basename($path));
        if ($stream->isPacked) {
            $stream->close();

            return [];
        }
        $from = max(0, (int) @filesize($path) - self::TAIL_BYTES);
        $from -= $from % 2;
        $stream->seek($from);
        $bytes = '';
        while (($block = $stream->read(self::TAIL_BYTES)) !== '') {
            $bytes .= $block;
        }
        $stream->close();
        // A file that ends within a line may have been cut off there.
        $text = $format->quote->exchanged($format->encoding->decode($bytes));
        if (preg_match('/[\r\n]\z/', $text) !== 1) {
            return [];
        }
        $lines = preg_split('/\r\n|\n|\r/', rtrim($text, "\r\n")) ?: [];

        return $from === 0 ? $lines : array_slice($lines, 1);
    }
}
