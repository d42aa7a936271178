<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Delimited;

use NineTally\Core\Intake\ByteStream;
use NineTally\Core\Intake\Encoding;
use NineTally\Core\Intake\FoundFormat;
use NineTally\Core\Intake\UnreadableFile;

/** Finds delimiter, line ends and encoding from the beginning of a file, and names what is not delimited text in UTF-8. */
final readonly class FormatDetection
{
    private const SAMPLE_BYTES = 262_144;

    private const SAMPLE_RECORDS = 100;

    private const NEARLY_ALL = 0.9;

    private const BYTE_ORDER_MARK = "\xEF\xBB\xBF";

    /** Beginnings of files that are delivered by mistake. */
    private const OTHER_KINDS = [
        "PK\x03\x04" => 'a zip archive in another',
        '%PDF' => 'a PDF',
        "\xD0\xCF\x11\xE0" => 'a workbook of an old kind, or one locked with a password',
        "\x89PNG" => 'a picture',
        "\xFF\xD8\xFF" => 'a picture',
    ];

    /**
     * @param  string  $name  the file as the person knows it, for messages
     *
     * @throws UnreadableFile
     */
    public function find(string $path, string $name): FoundFormat
    {
        $sample = $this->sample($path, $name);
        [$encoding, $mark, $encodingReason] = $this->encoding($sample, $name);
        $bytes = substr($sample, $mark);
        $text = $encoding->decode(substr($bytes, 0, strlen($bytes) - $encoding->openAtEnd($bytes)));
        if ($text === '') {
            throw UnreadableFile::isEmpty($name);
        }
        $this->mustBeText($text, $name);
        [$lineEnds, $lineEndReason] = $this->lineEnds($text);
        [$quote, $quoteReason] = $this->quote($text);
        $text = $quote->exchanged($text);
        [$delimiter, $delimiterReason, $score] = $this->delimiter($text);
        $header = HeaderDetection::find($this->records($text, $delimiter));

        return new FoundFormat(
            new DelimitedFormat($delimiter, $lineEnds, $mark > 0, $encoding, $header['hasHeader'], $header['skipAbove'], quote: $quote),
            [
                'delimiter' => $delimiterReason,
                'lineEnds' => $lineEndReason,
                'encoding' => $encodingReason,
                'header' => $header['reason'],
                ...$quote === QuoteSign::Double ? [] : ['quote' => $quoteReason],
            ],
            $score >= self::NEARLY_ALL,
        );
    }

    private function sample(string $path, string $name): string
    {
        $stream = ByteStream::open($path, $name);
        try {
            $sample = $stream->read(self::SAMPLE_BYTES);
        } finally {
            $stream->close();
        }

        return $sample !== '' ? $sample : throw UnreadableFile::isEmpty($name);
    }

    /** @return array{Encoding, int, string} the encoding, the bytes of its mark, and why in words */
    private function encoding(string $sample, string $name): array
    {
        foreach (self::OTHER_KINDS as $beginning => $kind) {
            if (str_starts_with($sample, $beginning)) {
                throw UnreadableFile::isOfAnotherKind($name, $kind);
            }
        }
        if (str_starts_with($sample, self::BYTE_ORDER_MARK)) {
            return [Encoding::Utf8, 3, 'UTF-8 with a byte-order mark'];
        }
        foreach ([[Encoding::Utf16LittleEndian, "\xFF\xFE", 1], [Encoding::Utf16BigEndian, "\xFE\xFF", 0]] as [$encoding, $mark, $zeroAt]) {
            if (str_starts_with($sample, $mark)) {
                return [$encoding, 2, 'UTF-16 with a byte-order mark'];
            }
            // In UTF-16 the letters of most languages have every other byte zero, or nearly all.
            $zeros = substr_count($sample, "\0");
            if ($zeros > strlen($sample) / 4 && ($sample[$zeroAt] ?? '') === "\0" && ($sample[1 - $zeroAt] ?? '') !== "\0") {
                return [$encoding, 0, 'UTF-16: every other byte is zero'];
            }
        }

        return $this->singleByte($sample) ?? [Encoding::Utf8, 0, 'UTF-8'];
    }

    private function mustBeText(string $sample, string $name): void
    {
        $zeros = substr_count($sample, "\0");
        // A zero byte in one record among many is a damaged record, and is refused as it is read.
        if ($zeros > strlen($sample) / 20 || str_contains(strtok($sample, "\r\n") ?: '', "\0")) {
            throw UnreadableFile::isOfAnotherKind($name, 'a binary file');
        }
    }

    /**
     * One damaged record in a UTF-8 file is refused as it is read; a file in which no letter beyond ASCII is UTF-8 is written
     * with one byte a letter.
     *
     * @return array{Encoding, int, string}|null
     */
    private function singleByte(string $text): ?array
    {
        // The sample may end inside a character.
        $whole = preg_replace('/[\xC0-\xFF][\x80-\xBF]{0,2}$/D', '', $text) ?? $text;
        if (mb_check_encoding($whole, 'UTF-8') || str_contains($whole, "\0")) {
            return null;
        }
        $wellFormed = preg_match_all('/[\xC2-\xDF][\x80-\xBF]|[\xE0-\xEF][\x80-\xBF]{2}|[\xF0-\xF4][\x80-\xBF]{3}/', $whole);
        if ($wellFormed !== 0 || preg_match('/[\x80-\xFF]/', $whole, $found, PREG_OFFSET_CAPTURE) !== 1) {
            return null;
        }
        [$byte, $offset] = $found[0];

        return [
            Encoding::Windows1252,
            0,
            sprintf(
                'Windows-1252: byte 0x%02X on line %s is not UTF-8',
                ord($byte),
                number_format(substr_count($whole, "\n", 0, $offset) + 1),
            ),
        ];
    }

    /** @return array{LineEnds, string} */
    private function lineEnds(string $text): array
    {
        $count = new LineEndCount;
        // A CR at the end may be half of CR LF.
        $count->add(str_ends_with($text, "\r") ? substr($text, 0, -1) : $text);
        $ends = $count->toArray();
        if ($ends === []) {
            return str_ends_with($text, "\r") ? [LineEnds::Cr, 'the lines end with CR'] : [LineEnds::Lf, 'there is only one line'];
        }
        $most = LineEnds::from(array_key_first($ends));

        return [
            $most,
            count($ends) === 1
                ? 'the lines end with '.($most === LineEnds::Crlf ? 'CR LF' : $most->value)
                : "at the beginning of the file lines end with {$count->inWords()}: each record ends by what stands behind it outside of ".
                    "quotes",
        ];
    }

    /**
     * Single quotes are quotes where each that begins a cell is met by one that ends it, no cell begins with a double one, and reading them
     * so divides the records more alike, or as much alike where they are frequent. Else they are written, like any other sign.
     *
     * @return array{QuoteSign, string} and why
     */
    private function quote(string $text): array
    {
        $begins = '(?<=^|[,;\t|\n\r])';
        $begun = preg_match_all("/{$begins}'/", $text);
        $whole = preg_match_all("/{$begins}'(?:[^']++|'')*+'(?=[,;\t|\n\r]|$)/D", $text);
        $none = [QuoteSign::Double, ''];
        // The last of them may be open where the sample ends.
        if ($whole < 1 || $begun - $whole > (int) (strlen($text) >= self::SAMPLE_BYTES - 3) || preg_match("/{$begins}\"/", $text) === 1) {
            return $none;
        }
        $isFrequent = 10 * $whole >= substr_count($text, "\n");
        $gain = $this->delimiter(QuoteSign::Single->exchanged($text))[2] <=> $this->delimiter($text)[2];

        return $gain > 0 || ($gain === 0 && $isFrequent)
            ? [QuoteSign::Single, sprintf('cells stand between single quotes: %d of them begin and end with one', $whole)]
            : $none;
    }

    /** @return array{non-empty-string, string, float} delimiter, why, and the share of records that it divides alike, a little for width */
    private function delimiter(string $text): array
    {
        $best = [',', 'no delimiter was found: the table has one column', 0.0];
        $found = 1;
        foreach (DelimitedFormat::DELIMITERS as $delimiter => $delimiterName) {
            $widths = array_map(static fn(array $record): int => count($record[1]), $this->records($text, $delimiter));
            $usual = HeaderDetection::usual($widths);
            if ($usual < 2) {
                continue;
            }
            $equal = count(array_filter($widths, static fn(int $width): bool => $width === $usual));
            // Records that agree weigh most; among delimiters that all agree, the one that finds more columns.
            $score = $equal / count($widths) + $usual / 100_000;
            if ($score > $best[2]) {
                $best = [
                    $delimiter,
                    sprintf('%s: %d of the first %d records have %d cells', $delimiterName, $equal, count($widths), $usual),
                    $score,
                ];
                $found = $usual;
            }
        }

        // Another sign divides a table only if it divides all of it alike, its names too, and into more than a usual one does.
        foreach (DelimitedFormat::RARE as $delimiter => $delimiterName) {
            $widths = array_map(static fn(array $record): int => count($record[1]), $this->records($text, $delimiter));
            $usual = HeaderDetection::usual($widths);
            if (count($widths) >= 3 && count(array_unique($widths)) === 1 && $usual > $found) {
                $found = $usual;
                $best = [$delimiter, sprintf('%s: all of the first %d records have %d cells', $delimiterName, count($widths), $usual), 1.0];
            }
        }

        return $best;
    }

    /**
     * @param  non-empty-string  $delimiter
     * @return list<array{int, list<string>}> the line on which each record begins, counted from 0; its cells
     */
    private function records(string $text, string $delimiter): array
    {
        $records = [];
        $parser = new RecordParser($delimiter);
        $begun = 0;
        // The sample may end inside a record: without its last line nothing is lost that matters here.
        foreach (LineEnds::split($text, strlen($text) < self::SAMPLE_BYTES - 3)[0] as $number => [$line, $end]) {
            if ($line === '' && ! $parser->isOpen()) {
                continue;
            }
            $begun = $parser->isOpen() ? $begun : $number;
            $cells = $parser->isOpen() ? $parser->goOn($line) : $parser->begin($line);
            if ($cells === null) {
                $parser->addInside($end);

                continue;
            }
            $records[] = [$begun, $cells];
            if (count($records) === self::SAMPLE_RECORDS) {
                break;
            }
        }

        return $records;
    }
}
