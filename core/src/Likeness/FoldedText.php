<?php

declare(strict_types=1);

namespace NineTally\Core\Likeness;

use NineTally\Core\Cause\Forms\Accents;
use NineTally\Core\Value\Reading;

/**
 * Text without what makes no difference to a likeness: case, accents, punctuation, more than one space, and words that are said to be
 * equal.
 */
final readonly class FoldedText
{
    private Accents $accents;

    /** @param array<string, string> $equivalents folded word => the word that stands for it */
    public function __construct(private array $equivalents = [])
    {
        $this->accents = new Accents;
    }

    /** A value as it is compared; null if it says nothing. */
    public function of(string $value, Reading $reading): ?string
    {
        $folded = $reading->isBlank($value) ? '' : $this->fold($value);

        return $folded === '' ? null : $folded;
    }

    /** Its words with one space between them. */
    public function fold(string $value): string
    {
        $plain = mb_strtolower($this->accents->canonical($value));
        // An apostrophe parts no word: O'Marrow is one.
        $plain = preg_replace(['/[\'’`´]/u', '/[^\p{L}\p{N}\p{M}]+/u'], ['', ' '], $plain);
        $plain = trim($plain ?? '');
        if ($this->equivalents === [] || $plain === '') {
            return $plain;
        }

        return implode(' ', array_map(fn(string $word): string => $this->equivalents[$word] ?? $word, explode(' ', $plain)));
    }

    /**
     * Pieces of three characters, with the edges of the value marked; what is spelt with one error shares most of them.
     *
     * @return list<string>
     */
    public static function trigrams(string $folded): array
    {
        $marked = "^{$folded}$";
        $pieces = [];
        if (preg_match('/[\x80-\xFF]/', $marked) !== 1) {
            for ($at = 0, $last = strlen($marked) - 3; $at <= $last; $at++) {
                $pieces[] = substr($marked, $at, 3);
            }

            return $pieces;
        }
        $characters = mb_str_split($marked);
        for ($at = 0, $last = count($characters) - 3; $at <= $last; $at++) {
            $pieces[] = $characters[$at].$characters[$at + 1].$characters[$at + 2];
        }

        return $pieces;
    }
}
