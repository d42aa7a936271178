<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Delimited;

use NineTally\Core\Intake\ByteRange;
use NineTally\Core\Intake\ByteStream;
use NineTally\Core\Intake\UnreadableFile;

/** Where a delimited text can be divided between records. */
final readonly class RangeSurvey
{
    private const SURVEY_BYTES = 1_048_576;

    /**
     * @param  int  $bytes  about how long a range should be
     * @return non-empty-list<ByteRange> the whole file where its records can only be told as it streams by
     *
     * @throws UnreadableFile
     */
    public static function of(string $path, string $name, DelimitedFormat $format, int $bytes): array
    {
        $stream = ByteStream::open($path, $name);
        $canBeCut = ! $stream->isPacked && $format->encoding->unit() === 1 && (int) @filesize($path) > 2 * $bytes;
        $starts = [0];
        $end = $format->lineEnds === LineEnds::Cr ? "\r" : "\n";
        $quote = $format->quote->sign();
        $quotes = $position = 0;
        while ($canBeCut && ($block = $stream->read(self::SURVEY_BYTES)) !== '') {
            $from = max(0, $starts[count($starts) - 1] + $bytes - $position);
            while ($from < strlen($block) && ($found = strpos($block, $end, $from)) !== false) {
                // An even number of quotes before it: the line end stands outside of quotes.
                // A CR alone: one that may be half of CR LF divides nothing.
                $isBetweenRecords =
                    ($end === "\n" || ($block[$found + 1] ?? "\n") !== "\n") &&
                    ($quotes + substr_count($block, $quote, 0, $found)) % 2 === 0;
                if ($isBetweenRecords) {
                    $starts[] = $position + $found + 1;
                }
                $from = $isBetweenRecords ? $found + max(1, $bytes) : $found + 1;
            }
            $quotes += substr_count($block, $quote);
            $position += strlen($block);
        }
        $stream->close();
        $ranges = [];
        foreach ($starts as $index => $start) {
            $ranges[] = new ByteRange($start, $starts[$index + 1] ?? null);
        }

        return $ranges;
    }
}
