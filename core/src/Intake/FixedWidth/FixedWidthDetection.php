<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\FixedWidth;

use NineTally\Core\Intake\Delimited\DelimitedFormat;
use NineTally\Core\Intake\FoundPart;
use NineTally\Core\Intake\PartFormat;
use NineTally\Core\Intake\UnreadableFile;

/** Proposes where the columns of fixed-width text begin: after each place at which every line is blank. */
final readonly class FixedWidthDetection
{
    private const SAMPLE_LINES = 200;

    private const LONGEST_LINE = 65_536;

    /**
     * @param  DelimitedFormat  $found  line ends and encoding, as they were found in the text
     * @return FoundPart|null null when no place is blank in all lines
     *
     * @throws UnreadableFile
     */
    public function find(string $path, string $name, DelimitedFormat $found): ?FoundPart
    {
        $format = new FixedWidthFormat([], $found->lineEnds, $found->hasByteOrderMark, $found->encoding);
        $lines = [];
        foreach ($format->lines($path, $name, self::LONGEST_LINE)->read() as $line) {
            if ($line !== null && trim($line) !== '' && mb_check_encoding($line, 'UTF-8')) {
                $lines[] = rtrim($line);
            }
            if (count($lines) === self::SAMPLE_LINES) {
                break;
            }
        }
        $starts = $this->starts($lines);
        if (count($starts) < 2 || count($lines) < 2 || ! $this->isFilledUp($lines)) {
            return null;
        }

        return new FoundPart(
            PartFormat::fixedWidth(new FixedWidthFormat($starts, $format->lineEnds, $format->hasByteOrderMark, $format->encoding)),
            ['starts' => sprintf('%d columns: before each, a place is blank in the first %d lines', count($starts), count($lines))],
        );
    }

    /**
     * @param  list<string>  $lines
     * @return list<int>
     */
    private function starts(array $lines): array
    {
        $filled = [];
        foreach ($lines as $line) {
            foreach (mb_str_split($line) as $place => $letter) {
                if ($letter !== ' ') {
                    $filled[$place] = true;
                }
            }
        }
        $places = array_keys($filled);
        sort($places);

        return array_values(array_filter($places, static fn(int $place): bool => ! isset($filled[$place - 1])));
    }

    /**
     * Whether the lines look filled up with spaces: a text in one column has blanks between words, and seldom two in a row.
     *
     * @param  list<string>  $lines
     */
    private function isFilledUp(array $lines): bool
    {
        $padded = count(array_filter($lines, static fn(string $line): bool => str_contains(trim($line), '  ')));

        return $padded * 2 >= count($lines);
    }
}
