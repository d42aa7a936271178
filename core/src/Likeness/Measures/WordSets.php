<?php

declare(strict_types=1);

namespace NineTally\Core\Likeness\Measures;

use NineTally\Core\Likeness\FoldedText;
use NineTally\Core\Likeness\Measure;
use NineTally\Core\Value\Reading;

/**
 * For addresses, organisations and whole names: how many words they share, whatever their order (Dice 1945), where words that are nearly
 * the same count by their likeness, the most alike first (after Cohen, Ravikumar and Fienberg 2003). An initial stands for a word that
 * begins with it, and a legal form says nothing.
 */
final readonly class WordSets implements Measure
{
    /** Words less alike than this are other words. */
    private const SAME_WORD = 0.85;

    private const INITIAL = 0.9;

    /** Pairs of words whose likeness is remembered: some ten megabytes. */
    private const KNOWN_PAIRS = 65_536;

    private const LEGAL_FORMS = [
        'ab', 'ag', 'aps', 'as', 'asa', 'bv', 'bvba', 'co', 'company', 'corp', 'corporation', 'ev', 'gmbh', 'inc', 'incorporated', 'kg',
        'limited', 'llc', 'llp', 'lp', 'ltd', 'nv', 'ohg', 'oy', 'oyj', 'plc', 'pty', 'sa', 'sarl', 'sas', 'se', 'sl', 'spa', 'srl', 'ug',
    ];

    public function __construct(private FoldedText $folded = new FoldedText) {}

    /** @return non-empty-list<string>|null */
    public function made(string $value, Reading $reading): ?array
    {
        // Whoever writes S.A. means SA.
        $folded = $this->folded->fold($reading->isBlank($value) ? '' : (string) preg_replace('/\b(\p{L})\.(?=\p{L}\b)/u', '$1', $value));
        $words = $folded === '' ? [] : array_values(array_unique(explode(' ', $folded)));
        $telling = array_values(array_diff($words, self::LEGAL_FORMS));
        $words = $telling === [] ? $words : $telling;

        return $words === [] ? null : $words;
    }

    public function likeness(mixed $one, mixed $other): float
    {
        assert(is_array($one) && is_array($other));
        /** @var non-empty-list<string> $one */
        /** @var non-empty-list<string> $other */
        $same = array_intersect($one, $other);
        $total = count($one) + count($other);
        $shared = (float) count($same);
        [$left, $right] = [array_diff($one, $same), array_diff($other, $same)];
        if ($left !== [] && $right !== []) {
            $shared += self::nearly(array_values($left), array_values($right));
        }

        return 2 * $shared / $total;
    }

    public function traces(mixed $made): array
    {
        assert(is_array($made));
        /** @var non-empty-list<string> $made */
        $sorted = $made;
        sort($sorted);
        $traces = [implode(' ', $sorted), ...array_map(static fn(string $word): string => "={$word}", $made)];
        foreach ($made as $word) {
            array_push($traces, ...FoldedText::trigrams($word));
        }

        return array_values(array_unique($traces));
    }

    /**
     * What words that are not the same add, each taken once.
     *
     * @param  list<string>  $left
     * @param  list<string>  $right
     */
    private static function nearly(array $left, array $right): float
    {
        $pairs = [];
        foreach ($left as $at => $word) {
            foreach ($right as $against => $other) {
                $likeness = self::word($word, $other);
                if ($likeness >= self::SAME_WORD) {
                    $pairs[] = [$likeness, $at, $against];
                }
            }
        }
        rsort($pairs);
        $shared = 0.0;
        foreach ($pairs as [$likeness, $at, $against]) {
            if (isset($left[$at], $right[$against])) {
                $shared += $likeness;
                unset($left[$at], $right[$against]);
            }
        }

        return $shared;
    }

    /** Words come again and again, and so do pairs of them. */
    private static function word(string $one, string $other): float
    {
        /** @var array<string, float> $known */
        static $known = [];
        $pair = "{$one} {$other}";
        if (isset($known[$pair])) {
            return $known[$pair];
        }
        if (count($known) === self::KNOWN_PAIRS) {
            $known = [];
        }

        return $known[$pair] = self::compared($one, $other);
    }

    private static function compared(string $one, string $other): float
    {
        // A character has four bytes at most.
        if (strlen($one) <= 4 && mb_strlen($one) === 1 || strlen($other) <= 4 && mb_strlen($other) === 1) {
            return mb_substr($one, 0, 1) === mb_substr($other, 0, 1) ? self::INITIAL : 0.0;
        }

        return JaroWinkler::of($one, $other);
    }
}
