<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

/**
 * Names of months in English, German, French, Spanish, Italian and Dutch, whole or cut to three letters or more. No name, and no cut of
 * one that is taken here, means two months; what would ("jui" of juin and juillet) is no month.
 */
final class MonthNames
{
    /** Folded, without marks on letters; by month from January on, in the order of the languages above. */
    private const NAMES = [
        ['january', 'januar', 'jaenner', 'janner', 'janvier', 'enero', 'gennaio', 'januari'],
        ['february', 'februar', 'fevrier', 'febrero', 'febbraio', 'februari'],
        ['march', 'marz', 'maerz', 'mars', 'marzo', 'maart', 'mrt', 'mrz'],
        ['april', 'avril', 'abril', 'aprile'],
        ['may', 'mai', 'mayo', 'maggio', 'mei'],
        ['june', 'juni', 'juin', 'junio', 'giugno'],
        ['july', 'juli', 'juillet', 'julio', 'luglio'],
        ['august', 'aout', 'agosto', 'augustus'],
        ['september', 'sept', 'septembre', 'septiembre', 'setiembre', 'settembre'],
        ['october', 'oktober', 'octobre', 'octubre', 'ottobre'],
        ['november', 'novembre', 'noviembre'],
        ['december', 'dezember', 'decembre', 'diciembre', 'dicembre'],
    ];

    private const MARKS = ['ä' => 'a', 'é' => 'e', 'è' => 'e', 'û' => 'u', 'ú' => 'u', 'í' => 'i', 'ó' => 'o'];

    /** @var array<string, int|null> folded name => month from 1; null where there is none, or where there would be two */
    private static array $known = [];

    /** @return int|null from 1; null when it is no month */
    public static function month(string $name): ?int
    {
        $composed = \Normalizer::normalize($name);
        $folded = strtr(mb_strtolower(is_string($composed) ? $composed : $name), self::MARKS);
        if (! array_key_exists($folded, self::$known)) {
            // Values are many, and names that are none could be too.
            self::$known = count(self::$known) < 1_000 ? self::$known : [];
            self::$known[$folded] = self::found($folded);
        }

        return self::$known[$folded];
    }

    private static function found(string $folded): ?int
    {
        if (strlen($folded) < 3) {
            return null;
        }
        $months = array_keys(
            array_filter(
                self::NAMES,
                static fn(array $names): bool => array_filter(
                    $names,
                    static fn(string $name): bool => str_starts_with($name, $folded),
                ) !== [],
            ),
        );

        return count($months) === 1 ? $months[0] + 1 : null;
    }
}
