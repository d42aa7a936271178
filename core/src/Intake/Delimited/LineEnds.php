<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Delimited;

/**
 * What ends most lines of a file. A record ends by whichever of them stands behind it outside of quotes, also where a file has several;
 * inside quotes they belong to the cell.
 */
enum LineEnds: string
{
    case Lf = 'LF';
    case Crlf = 'CRLF';
    case Cr = 'CR';

    /** CR LF is one end. */
    public static function count(string $text): int
    {
        $returns = substr_count($text, "\r");

        return substr_count($text, "\n") + ($returns === 0 ? 0 : $returns - substr_count($text, "\r\n"));
    }

    /** Every end as LF. */
    public static function asLf(string $text): string
    {
        return str_contains($text, "\r") ? str_replace(["\r\n", "\r"], "\n", $text) : $text;
    }

    /**
     * Takes whole lines off the beginning of a text.
     *
     * @param  bool  $isLast  nothing follows: a CR at the end is no half of CR LF, and what has no end is a line too
     * @return array{list<array{string, string}>, string} each line and what ends it; and what is left
     */
    public static function split(string $text, bool $isLast): array
    {
        $held = ! $isLast && str_ends_with($text, "\r") ? "\r" : '';
        $pieces = preg_split('/(\r\n|\n|\r)/', $held === '' ? $text : substr($text, 0, -1), -1, PREG_SPLIT_DELIM_CAPTURE) ?: [$text];
        $lines = [];
        for ($piece = 0; $piece + 1 < count($pieces); $piece += 2) {
            $lines[] = [$pieces[$piece], $pieces[$piece + 1]];
        }
        $rest = $pieces[count($pieces) - 1].$held;
        if ($isLast && $rest !== '') {
            $lines[] = [$rest, ''];
            $rest = '';
        }

        return [$lines, $rest];
    }

    /** The place behind the next line end, or null where none is. */
    public static function next(string $text, int $from): ?int
    {
        $at = $from + strcspn($text, "\r\n", $from);

        return match (true) {
            $at >= strlen($text) => null,
            $text[$at] === "\r" && ($text[$at + 1] ?? '') === "\n" => $at + 2,
            default => $at + 1,
        };
    }

    /** The place of the last byte of the last line end before a place; a CR on which the text ends may be half of one. */
    public static function last(string $text, int $before): ?int
    {
        $returned = $before === strlen($text) && $text !== '' && $text[-1] === "\r" ? $before - 1 : $before;
        $feed = $before === 0 ? false : strrpos(substr($text, 0, $before), "\n");
        $return = $returned === 0 || ! str_contains($text, "\r") ? false : strrpos(substr($text, 0, $returned), "\r");

        return $feed === false && $return === false ? null : max((int) $feed, (int) $return);
    }

    /**
     * The place of the last byte of the last line end that ends a record: one with an even number of quotes before it.
     */
    public static function lastOutsideQuotes(string $text): ?int
    {
        $cut = self::last($text, strlen($text));
        // The last line end may stand inside a cell; then the last one before that cell's quote is tried, and no more.
        for ($tries = 0; $tries < 3 && $cut !== null; $tries++) {
            if (substr_count($text, '"', 0, $cut) % 2 === 0) {
                return $cut;
            }
            $quote = strrpos(substr($text, 0, $cut), '"');
            $cut = $quote === false ? null : self::last($text, $quote);
        }

        return null;
    }
}
