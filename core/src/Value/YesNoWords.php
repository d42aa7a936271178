<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

/** Words for yes and no, as registers write them in English, German, French, Spanish, Italian and Dutch. */
final readonly class YesNoWords
{
    /** Pairs of a word for yes and the word for no that stands beside it. */
    private const PAIRS = [
        ['yes', 'no'], ['y', 'n'], ['true', 'false'], ['t', 'f'], ['1', '0'], ['on', 'off'], ['ja', 'nein'], ['j', 'n'], ['wahr', 'falsch'],
        ['oui', 'non'], ['o', 'n'], ['vrai', 'faux'], ['sí', 'no'], ['si', 'no'], ['s', 'n'], ['verdadero', 'falso'], ['sì', 'no'],
        ['vero', 'falso'], ['ja', 'nee'], ['waar', 'onwaar'],
    ];

    /**
     * @param  list<string>  $values  all that stand in a column
     * @return array{list<string>, list<string>}|null words for yes and for no among them, as they are written; null unless all are of one
     *     pair, and both stand there
     */
    public static function among(array $values): ?array
    {
        $folded = array_map(static fn(string $value): string => mb_convert_case($value, MB_CASE_FOLD, 'UTF-8'), $values);
        foreach (self::PAIRS as [$yes, $no]) {
            if (array_diff($folded, [$yes, $no]) === [] && array_diff([$yes, $no], $folded) === []) {
                $of = static fn(string $word): array => [$values[(int) array_search($word, $folded, true)]];

                return [$of($yes), $of($no)];
            }
        }

        return null;
    }

    /** Whether they are read without being declared. */
    public static function needNoDeclaration(string $yes, string $no): bool
    {
        $reading = new Reading(Kind::YesNo);

        return $reading->yesOrNo($yes) === true && $reading->yesOrNo($no) === false;
    }
}
