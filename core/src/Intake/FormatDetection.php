<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

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
     * @throws NotUsable
     */
    public function find(string $path, string $name): FoundFormat
    {
        $sample = $this->sample($path, $name);
        [$encoding, $mark, $encodingReason] = $this->encoding($sample, $name);
        $bytes = substr($sample, $mark);
        $text = $encoding->decode(substr($bytes, 0, strlen($bytes) - $encoding->openAtEnd($bytes)));
        if ($text === '') {
            throw NotUsable::isEmpty($name);
        }
        $this->mustBeText($text, $name);
        [$lineEnds, $lineEndReason] = $this->lineEnds($text);
        [$delimiter, $delimiterReason, $isDelimited] = $this->delimiter($text, $lineEnds);

        return new FoundFormat(new DelimitedFormat($delimiter, $lineEnds, $mark > 0, $encoding), [
            'delimiter' => $delimiterReason,
            'lineEnds' => $lineEndReason,
            'encoding' => $encodingReason,
        ], $isDelimited);
    }

    private function sample(string $path, string $name): string
    {
        $stream = ByteStream::open($path, $name);
        try {
            $sample = $stream->read(self::SAMPLE_BYTES);
        } finally {
            $stream->close();
        }

        return $sample !== '' ? $sample : throw NotUsable::isEmpty($name);
    }

    /** @return array{Encoding, int, string} the encoding, the bytes of its mark, and why in words */
    private function encoding(string $sample, string $name): array
    {
        foreach (self::OTHER_KINDS as $beginning => $kind) {
            if (str_starts_with($sample, $beginning)) {
                throw NotUsable::isOfAnotherKind($name, $kind);
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
            throw NotUsable::isOfAnotherKind($name, 'a binary file');
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

        return [Encoding::Windows1252, 0, sprintf('Windows-1252: byte 0x%02X on line %s is not UTF-8', ord($byte), number_format(substr_count($whole, "\n", 0, $offset) + 1))];
    }

    /** @return array{LineEnds, string} */
    private function lineEnds(string $text): array
    {
        $crlf = substr_count($text, "\r\n");
        $lf = substr_count($text, "\n") - $crlf;
        // A line end inside a cell says nothing, but there is no telling before the quotes are read: the majority decides.
        if ($crlf > 0 && $crlf >= $lf) {
            return [LineEnds::Crlf, 'the lines end with CR LF'];
        }
        if ($lf === 0 && str_contains($text, "\r")) {
            return [LineEnds::Cr, 'the lines end with CR alone'];
        }

        return [LineEnds::Lf, $lf === 0 ? 'there is only one line' : 'the lines end with LF'];
    }

    /** @return array{non-empty-string, string, bool} delimiter, why, and whether it divides nearly all records alike */
    private function delimiter(string $text, LineEnds $lineEnds): array
    {
        $best = [',', 'no delimiter was found: the table has one column', 0.0];
        foreach (DelimitedFormat::DELIMITERS as $delimiter => $delimiterName) {
            $widths = $this->widths($text, $delimiter, $lineEnds);
            if ($widths === [] || $widths[0] < 2) {
                continue;
            }
            $equal = count(array_filter($widths, static fn(int $width): bool => $width === $widths[0]));
            // Records that agree weigh most; among delimiters that all agree, the one that finds more columns.
            $score = $equal / count($widths) + $widths[0] / 100_000;
            if ($score > $best[2]) {
                $best = [$delimiter, sprintf('%s: %d of the first %d records have %d cells', $delimiterName, $equal, count($widths), $widths[0]), $score];
            }
        }

        return [$best[0], $best[1], $best[2] >= self::NEARLY_ALL];
    }

    /**
     * @param  non-empty-string  $delimiter
     * @return list<int>
     */
    private function widths(string $text, string $delimiter, LineEnds $lineEnds): array
    {
        $widths = [];
        $parser = new RecordParser($delimiter);
        // The sample may end inside a record: without its last line nothing is lost that matters here.
        $end = strlen($text) < self::SAMPLE_BYTES - 3 ? strlen($text) : (int) strrpos($text, $lineEnds->byte());
        foreach (explode($lineEnds->byte(), substr($text, 0, $end)) as $line) {
            $line = $lineEnds === LineEnds::Crlf && str_ends_with($line, "\r") ? substr($line, 0, -1) : $line;
            if ($line === '' && ! $parser->isOpen()) {
                continue;
            }
            $cells = $parser->isOpen() ? $parser->goOn($line, $lineEnds->byte()) : $parser->begin($line);
            if ($cells !== null && $widths[] = count($cells)) {
                if (count($widths) === self::SAMPLE_RECORDS) {
                    break;
                }
            }
        }

        return $widths;
    }
}
