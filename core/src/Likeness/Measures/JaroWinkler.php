<?php

declare(strict_types=1);

namespace NineTally\Core\Likeness\Measures;

use NineTally\Core\Likeness\FoldedText;
use NineTally\Core\Likeness\Measure;
use NineTally\Core\Value\Reading;

/**
 * For names: characters in common at about the same place (Jaro 1989), and more for a beginning in common (Winkler 1990): a tenth of what
 * is lacking for each of the first four characters, however alike the rest is. The triangle does not hold for it.
 */
final readonly class JaroWinkler implements Measure
{
    private const SCALE = 0.1;

    private const PREFIX = 4;

    public function __construct(private FoldedText $folded = new FoldedText) {}

    public function made(string $value, Reading $reading): ?string
    {
        return $this->folded->of($value, $reading);
    }

    public function likeness(mixed $one, mixed $other): float
    {
        assert(is_string($one) && is_string($other));

        return self::of($one, $other);
    }

    public function traces(mixed $made): array
    {
        assert(is_string($made));

        return [$made, ...FoldedText::trigrams($made)];
    }

    public static function of(string $one, string $other): float
    {
        if ($one === $other) {
            return 1.0;
        }
        // Of values of one length the order would tell which characters are taken for each other.
        if ($one > $other) {
            [$one, $other] = [$other, $one];
        }
        $isPlain = preg_match('/[\x80-\xFF]/', $one.$other) !== 1;
        $ofOne = $isPlain ? str_split($one) : mb_str_split($one);
        $ofOther = $isPlain ? str_split($other) : mb_str_split($other);
        $jaro = self::jaro($ofOne, $ofOther);
        for ($prefix = 0; $prefix < self::PREFIX && isset($ofOne[$prefix], $ofOther[$prefix]); $prefix++) {
            if ($ofOne[$prefix] !== $ofOther[$prefix]) {
                break;
            }
        }

        return $jaro + $prefix * self::SCALE * (1 - $jaro);
    }

    /**
     * @param  list<string>  $one
     * @param  list<string>  $other
     */
    private static function jaro(array $one, array $other): float
    {
        [$long, $short] = [count($one), count($other)];
        if ($long < $short) {
            [$one, $other, $long, $short] = [$other, $one, $short, $long];
        }
        $reach = max(0, intdiv($long, 2) - 1);
        $taken = $inOther = [];
        foreach ($other as $at => $character) {
            $end = min($long - 1, $at + $reach);
            for ($place = max(0, $at - $reach); $place <= $end; $place++) {
                if ($one[$place] === $character && ! isset($taken[$place])) {
                    $taken[$place] = true;
                    $inOther[] = $character;
                    break;
                }
            }
        }
        $common = count($inOther);
        if ($common === 0) {
            return 0.0;
        }
        ksort($taken);
        $moved = $at = 0;
        foreach ($taken as $place => $_) {
            $moved += $one[$place] === $inOther[$at++] ? 0 : 1;
        }

        return ($common / $long + $common / $short + ($common - intdiv($moved, 2)) / $common) / 3;
    }
}
