<?php

declare(strict_types=1);

namespace NineTally\Core\Likeness\Measures;

use NineTally\Core\Likeness\FoldedText;
use NineTally\Core\Likeness\Measure;
use NineTally\Core\Value\Reading;

/**
 * For codes: the fewest characters to insert, delete, replace or swap with their neighbour, without the restriction that nothing is touched
 * twice (Damerau 1964; Lowrance and Wagner 1975). The distance is a metric; the likeness is 1 less its part of the longer value.
 */
final readonly class DamerauLevenshtein implements Measure
{
    public function __construct(private FoldedText $folded = new FoldedText) {}

    public function made(string $value, Reading $reading): ?string
    {
        $folded = $this->folded->of($value, $reading);

        // What separates the parts of a code is no part of it.
        return $folded === null ? null : str_replace(' ', '', $folded);
    }

    public function likeness(mixed $one, mixed $other): float
    {
        assert(is_string($one) && is_string($other));
        if ($one === $other) {
            return 1.0;
        }

        return 1 - self::distance($one, $other) / max(mb_strlen($one), mb_strlen($other));
    }

    public function traces(mixed $made): array
    {
        assert(is_string($made));

        return [$made, ...FoldedText::trigrams($made)];
    }

    public static function distance(string $one, string $other): int
    {
        $isPlain = preg_match('/[\x80-\xFF]/', $one.$other) !== 1;
        $ofOne = $isPlain ? str_split($one) : mb_str_split($one);
        $ofOther = $isPlain ? str_split($other) : mb_str_split($other);
        if ($one === '' || $other === '') {
            return $one === $other ? 0 : ($one === '' ? count($ofOther) : count($ofOne));
        }
        $width = count($ofOther);
        $most = count($ofOne) + $width;
        // Rows of the table from -1 on, so two of them lie before the first character.
        $table = [array_fill(0, $width + 2, $most), [$most, ...range(0, $width)]];
        /** @var array<array-key, int> $lastRow where a character of the one was seen last */
        $lastRow = [];
        foreach ($ofOne as $row => $character) {
            $lastColumn = 0;
            $above = $table[$row + 1];
            $line = [$most, $row + 1];
            for ($column = 1; $column <= $width; $column++) {
                $against = $ofOther[$column - 1];
                $isSame = $character === $against;
                $swapRow = $lastRow[$against] ?? 0;
                $best = min(
                    $above[$column] + ($isSame ? 0 : 1),
                    $line[$column] + 1,
                    $above[$column + 1] + 1,
                    $table[$swapRow][$lastColumn] + ($row - $swapRow) + 1 + ($column - $lastColumn - 1),
                );
                $line[$column + 1] = $best;
                if ($isSame) {
                    $lastColumn = $column;
                }
            }
            $table[$row + 2] = $line;
            $lastRow[$character] = $row + 1;
        }

        return $table[count($ofOne) + 1][$width + 1];
    }
}
