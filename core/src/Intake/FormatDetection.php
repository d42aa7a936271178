<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

/** Finds delimiter, line ends and encoding from the beginning of a file, and names what is not delimited text in UTF-8. */
final readonly class FormatDetection
{
    private const SAMPLE_BYTES = 262_144;

    private const SAMPLE_RECORDS = 100;

    private const BYTE_ORDER_MARK = "\xEF\xBB\xBF";

    /** Beginnings of files that are delivered by mistake. */
    private const OTHER_KINDS = [
        "PK\x03\x04" => 'a zip archive or a workbook',
        "\x1F\x8B" => 'compressed with gzip',
        '%PDF' => 'a PDF',
        "\xD0\xCF\x11\xE0" => 'a workbook of an old kind',
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
        $hasMark = str_starts_with($sample, self::BYTE_ORDER_MARK);
        $text = $hasMark ? substr($sample, 3) : $sample;
        if ($text === '') {
            throw NotUsable::isEmpty($name);
        }
        $this->mustBeText($sample, $name);
        $this->mustBeUtf8($text, $name);
        [$lineEnds, $lineEndReason] = $this->lineEnds($text);
        [$delimiter, $delimiterReason] = $this->delimiter($text, $lineEnds);

        return new FoundFormat(new DelimitedFormat($delimiter, $lineEnds, $hasMark), [
            'delimiter' => $delimiterReason,
            'lineEnds' => $lineEndReason,
            'encoding' => $hasMark ? 'UTF-8 with a byte-order mark' : 'UTF-8',
        ]);
    }

    private function sample(string $path, string $name): string
    {
        if (is_dir($path)) {
            throw NotUsable::isFolder($name);
        }
        $sample = is_readable($path) ? file_get_contents($path, false, null, 0, self::SAMPLE_BYTES) : false;
        if ($sample === false) {
            throw NotUsable::cannotBeOpened($name);
        }

        return $sample !== '' ? $sample : throw NotUsable::isEmpty($name);
    }

    private function mustBeText(string $sample, string $name): void
    {
        foreach (self::OTHER_KINDS as $beginning => $kind) {
            if (str_starts_with($sample, $beginning)) {
                throw NotUsable::isOfAnotherKind($name, $kind);
            }
        }
        if (str_starts_with($sample, "\xFF\xFE") || str_starts_with($sample, "\xFE\xFF")) {
            throw NotUsable::isEncodedAs($name, 'UTF-16', 'it begins with its byte-order mark');
        }
        $zeros = substr_count($sample, "\0");
        if ($zeros > strlen($sample) / 4) {
            throw NotUsable::isEncodedAs($name, 'UTF-16', 'every other byte is zero');
        }
        // A zero byte in one record among many is a damaged record, and is refused as it is read.
        if ($zeros > strlen($sample) / 20 || str_contains(strtok($sample, "\r\n") ?: '', "\0")) {
            throw NotUsable::isOfAnotherKind($name, 'a binary file');
        }
    }

    /**
     * One damaged record in a UTF-8 file is refused as it is read; a file in which no letter beyond ASCII is UTF-8 is
     * written in another encoding, and reading it would refuse every row that matters.
     */
    private function mustBeUtf8(string $text, string $name): void
    {
        // The sample may end inside a character.
        $whole = preg_replace('/[\xC0-\xFF][\x80-\xBF]{0,2}$/D', '', $text) ?? $text;
        if (mb_check_encoding($whole, 'UTF-8')) {
            return;
        }
        $wellFormed = preg_match_all('/[\xC2-\xDF][\x80-\xBF]|[\xE0-\xEF][\x80-\xBF]{2}|[\xF0-\xF4][\x80-\xBF]{3}/', $whole);
        if ($wellFormed === 0 && preg_match('/[\x80-\xFF]/', $whole, $found, PREG_OFFSET_CAPTURE) === 1) {
            [$byte, $offset] = $found[0];
            throw NotUsable::isEncodedAs($name, 'Windows-1252 or another single-byte encoding', sprintf(
                'byte 0x%02X on line %s is not UTF-8',
                ord($byte),
                number_format(substr_count($whole, "\n", 0, $offset) + 1),
            ));
        }
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

    /** @return array{non-empty-string, string} */
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

        return [$best[0], $best[1]];
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
