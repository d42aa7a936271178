<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

/** How alike two column names are: whatever their case and separators, with common words and abbreviations known. */
final readonly class ColumnNames
{
    /** Words that say little beside others. */
    private const COMMON = [
        'the' => true,
        'of' => true,
        'is' => true,
        'has' => true,
        'fld' => true,
        'col' => true,
        'field' => true,
        'old' => true,
        'new' => true,
    ];

    /** Spellings of one word, as registers abbreviate it. */
    private const SPELLINGS = [
        'no' => 'number',
        'nr' => 'number',
        'num' => 'number',
        'nbr' => 'number',
        'id' => 'number',
        'ref' => 'number',
        'dt' => 'date',
        'dat' => 'date',
        'ts' => 'time',
        'amt' => 'amount',
        'qty' => 'quantity',
        'desc' => 'description',
        'descr' => 'description',
        'addr' => 'address',
        'tel' => 'phone',
        'telephone' => 'phone',
        'fname' => 'first',
        'lname' => 'last',
        'surname' => 'last',
        'cd' => 'code',
        'typ' => 'type',
        'nm' => 'name',
        'cat' => 'category',
        'dob' => 'birth',
        'postcode' => 'zip',
        'len' => 'length',
        'wt' => 'weight',
        'yr' => 'year',
        'mth' => 'month',
        'remark' => 'note',
        'remarks' => 'note',
        'notes' => 'note',
        'comment' => 'note',
        'comments' => 'note',
        'price' => 'fee',
        'charge' => 'fee',
        'cost' => 'fee',
        'begin' => 'start',
        'from' => 'start',
        'until' => 'end',
        'to' => 'end',
        'till' => 'end',
        'owner' => 'holder',
        'mail' => 'email',
        'pct' => 'percent',
    ];

    /**
     * Columns of the same name, and of the rest those whose names are the same words ("US_Gross", "US Gross"), where no other name is.
     *
     * @param  list<string>  $source
     * @param  list<string>  $target
     * @return array<string, string> source name => target name, in the order of the source
     */
    public static function pairs(array $source, array $target): array
    {
        $same = array_intersect($source, $target);
        [$left, $leftThere] = [array_values(array_diff($source, $same)), array_values(array_diff($target, $same))];
        // Words that mean the same are a reason to propose a pair, not to take it for one.
        $words = static fn(string $name): string => implode(' ', self::divided($name));
        [$ofSource, $ofTarget] = [array_map($words, $left), array_map($words, $leftThere)];
        $pairs = [];
        foreach ($source as $name) {
            $at = array_search($name, $left, true);
            $isOnly = $at !== false && $ofSource[$at] !== '' && count(array_keys($ofSource, $ofSource[$at], true)) === 1;
            $others = $isOnly ? array_keys($ofTarget, $ofSource[$at], true) : [];
            if ($at === false) {
                $pairs[$name] = $name;
            } elseif (count($others) === 1) {
                $pairs[$name] = $leftThere[$others[0]];
            }
        }

        return $pairs;
    }

    /** @return float from 0 (nothing alike) to 1 (the same words) */
    public static function likeness(string $one, string $other): float
    {
        if ($one === $other) {
            return 1.0;
        }
        [$words, $otherWords] = [self::words($one), self::words($other)];
        if ($words === [] || $otherWords === []) {
            return 0.0;
        }
        if ($words === $otherWords) {
            return 0.95;
        }
        [$few, $many] = count($words) <= count($otherWords) ? [$words, $otherWords] : [$otherWords, $words];
        $met = 0.0;
        $left = $many;
        foreach ($few as $word) {
            [$best, $place] = [0.0, null];
            foreach ($left as $at => $candidate) {
                $likeness = self::ofWords($word, $candidate);
                if ($likeness > $best) {
                    [$best, $place] = [$likeness, $at];
                }
            }
            $met += $best;
            if ($place !== null) {
                unset($left[$place]);
            }
        }

        // What has no counterpart counts half: "holder" and "holder name" are nearly the same.
        return round(0.95 * $met / (count($few) + (count($many) - count($few)) / 2), 3);
    }

    /** @return list<string> */
    private static function words(string $name): array
    {
        $words = self::divided($name);
        $telling = array_values(array_filter($words, static fn(string $word): bool => ! isset(self::COMMON[$word])));

        return array_map(static fn(string $word): string => self::SPELLINGS[$word] ?? $word, $telling === [] ? $words : $telling);
    }

    /** @return list<string> */
    private static function divided(string $name): array
    {
        $divided = preg_replace(['/(?<=\p{Ll})(?=\p{Lu})/u', '/(?<=\p{L})(?=\d)|(?<=\d)(?=\p{L})/u'], ' ', $name) ?? $name;

        return preg_split('/[^\p{L}\p{N}]+/u', mb_strtolower($divided), -1, PREG_SPLIT_NO_EMPTY) ?: [];
    }

    private static function ofWords(string $one, string $other): float
    {
        if ($one === $other) {
            return 1.0;
        }
        [$short, $long] = strlen($one) <= strlen($other) ? [$one, $other] : [$other, $one];
        // An abbreviation is the beginning of a word, or its consonants: "insp" and "nspctn" for "inspection".
        if (strlen($short) >= 3 && str_starts_with($long, $short)) {
            return 0.9;
        }
        if (strlen($short) >= 3 && preg_replace('/[aeiou]/', '', $long) === preg_replace('/[aeiou]/', '', $short)) {
            return 0.8;
        }
        $distance = strlen($long) > 60 ? 60 : levenshtein($short, $long);

        return max(0.0, strlen($long) < 4 ? 0.0 : 1 - $distance / (strlen($long) / 2));
    }
}
