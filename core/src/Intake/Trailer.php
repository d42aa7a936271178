<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

use NineTally\Core\Intake\Delimited\QuoteSign;
use NineTally\Core\Intake\Delimited\RecordParser;

/** The last record of a text, where it says what the others should add up to. */
final readonly class Trailer
{
    private const TAIL_BYTES = 1_048_576;

    private const BEGINNINGS = '/^(?:#|(?:trl|trailer|tr|totals?|sums?|end|eof|footer|z|9{1,3})\b)/i';

    /**
     * @param  list<string>  $cells
     * @param  int|null  $rows  the cell, from 1, that is most likely the number of rows
     */
    private function __construct(public array $cells, public bool $isLikely, public ?int $rows) {}

    /**
     * The last line that is not blank, whether it is skipped or not; null where the format has none.
     *
     * @param  int  $columns  of a record that is no trailer
     */
    public static function of(string $path, PartFormat $format, int $columns): ?self
    {
        $details = $format->delimited ?? $format->fixedWidth;
        if ($details === null) {
            return null;
        }
        $lines = preg_split('/\r\n|\n|\r/', rtrim($details->encoding->decode(self::tail($path)), "\r\n \t")) ?: [''];
        $last = $lines[count($lines) - 1];
        if (count($lines) < 2 || ! mb_check_encoding($last, 'UTF-8')) {
            return null;
        }
        $cells =
            $format->delimited === null
                ? preg_split('/\s+/', trim($last))
                : (new RecordParser($format->delimited->delimiter))->begin($format->delimited->quote->exchanged($last));
        $quote = $format->delimited->quote ?? QuoteSign::Double;
        $cells = $cells === false || $cells === null ? [$last] : array_map($quote->exchanged(...), $cells);
        $whole = array_keys(array_filter($cells, static fn(string $cell): bool => preg_match('/^\s*\d+\s*$/', $cell) === 1));
        $hasOnlyFigures =
            array_filter(array_slice($cells, 1), static fn(string $cell): bool => preg_match('/^[\s\d.,+-]*$/', $cell) !== 1) === [];
        $isLikely =
            $details->skipBelow > 0 ||
            (preg_match(self::BEGINNINGS, trim($cells[0])) === 1 && (count($cells) !== $columns || $hasOnlyFigures));

        // A number in the first cell is most likely the kind of the record.
        return new self($cells, $isLikely, match (true) {
            $whole === [] => null,
            $whole[0] === 0 && isset($whole[1]) => $whole[1] + 1,
            default => $whole[0] + 1,
        });
    }

    /**
     * The end of a text that is packed. It is unpacked to its end for that, which takes long: whoever cannot wait has it kept, and
     * {@see of()} reads it like any other text.
     *
     * @return string|null null where the text is not packed
     *
     * @throws UnreadableFile when it cannot be unpacked
     */
    public static function tailOfPacked(string $path, string $name): ?string
    {
        $stream = ByteStream::open($path, $name);
        $tail = $stream->isPacked ? self::last($stream) : null;
        $stream->close();

        return $tail;
    }

    private static function tail(string $path): string
    {
        $stream = ByteStream::open($path, basename($path));
        if (! $stream->isPacked) {
            $place = max(0, (int) @filesize($path) - self::TAIL_BYTES);
            $stream->seek($place - $place % 2);
        }
        $tail = self::last($stream);
        $stream->close();

        return $tail;
    }

    /** The last bytes, from an even place on, so that a letter of two bytes stays whole. */
    private static function last(ByteStream $stream): string
    {
        $tail = '';
        while (($block = $stream->read(self::TAIL_BYTES)) !== '') {
            $tail .= $block;
            if (strlen($tail) > 3 * self::TAIL_BYTES) {
                $dropped = strlen($tail) - self::TAIL_BYTES;
                $dropped -= $dropped % 2;
                $tail = substr($tail, $dropped);
            }
        }

        return $tail;
    }
}
