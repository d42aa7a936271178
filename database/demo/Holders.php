<?php

declare(strict_types=1);

namespace Database\Demo;

/**
 * Those who hold berths. The new system gave every sixth of them a number of its own and wrote some of their names in its own way, so that
 * they are found by their names, streets and days alone; a few gave up, and a few are new.
 */
final readonly class Holders
{
    public const NAME = 'Holders';

    private const ALL = 360;

    private const STREETS = [
        'Lock Street', 'Salt Quay', 'Heron Row', 'Weir Lane', 'Far Bank', 'Eel Pie Road', 'Tiller Street', 'Sluice Road', 'Osier Walk',
        'Chandler Street', 'Ferry Lane', 'Old Tow Path', 'Kingfisher Road',
    ];

    private const TOWNS = ['Wherrymoor', 'Kestrel Basin', 'Netherquay', 'Otterbridge'];

    /** @return array{source: list<string>, target: list<string>} paths */
    public static function write(string $folder): array
    {
        $rows = ['source' => [], 'target' => []];
        for ($number = 1; $number <= self::ALL; $number++) {
            [$old, $new] = [self::old($number), self::isRenumbered($number) ? self::renumbered($number) : self::old($number)];
            if (! self::isNew($number)) {
                $rows['source'][] = $old;
            }
            if (! self::hasGivenUp($number)) {
                $rows['target'][$number * 149 % self::ALL] = $new;
            }
        }
        ksort($rows['target']);
        return [
            'source' => HandMade::file(
                "{$folder}/holders_source.csv",
                ['holder_no', 'name', 'street', 'town', 'since', 'deposit'],
                $rows['source'],
            ),
            'target' => HandMade::file(
                "{$folder}/holders_target.csv",
                ['number', 'holder', 'address', 'town', 'since', 'deposit'],
                $rows['target'],
            ),
        ];
    }

    /** @return array<string, mixed> the plan that compares both sides, as plans are written */
    public static function plan(): array
    {
        return HandMade::plan(
            '401de5',
            [['source' => 'holder_no', 'target' => 'number']],
            [['name', 'holder'], ['street', 'address'], ['town', 'town'], ['since', 'since'], ['deposit', 'deposit']],
        );
    }

    /** @return array<string, string> the new number of each holder that was given one, by the old */
    public static function truth(): array
    {
        $truth = [];
        for ($number = 1; $number <= self::ALL; $number++) {
            if (self::isRenumbered($number) && ! self::isNew($number) && ! self::hasGivenUp($number)) {
                $truth[self::old($number)[0]] = self::renumbered($number)[0];
            }
        }

        return $truth;
    }

    /** @return non-empty-list<string> numbers of holders that both systems have alike */
    public static function unchanged(): array
    {
        /** @var non-empty-list<string>|null $unchanged asked for once for each berth */
        static $unchanged = null;

        if ($unchanged === null) {
            $unchanged = [self::old(1)[0]];
            foreach (range(2, self::ALL) as $number) {
                if (! self::isRenumbered($number) && ! self::isNew($number) && ! self::hasGivenUp($number)) {
                    $unchanged[] = self::old($number)[0];
                }
            }
        }

        return $unchanged;
    }

    private static function isRenumbered(int $number): bool
    {
        return $number % 6 === 0;
    }

    private static function isNew(int $number): bool
    {
        return $number % 67 === 0;
    }

    private static function hasGivenUp(int $number): bool
    {
        return $number % 43 === 0;
    }

    /** @return list<string> */
    private static function old(int $number): array
    {
        return [
            sprintf('H-%04d', $number),
            Wherrymoor::holder($number * 7 + intdiv($number, 6)),
            $number * 11 % 97 + 1 .' '.self::STREETS[$number % 13],
            self::TOWNS[$number % 4],
            sprintf('%d-%02d-%02d', 1998 + $number * 5 % 23, $number * 7 % 12 + 1, $number * 13 % 28 + 1),
            sprintf('%d.00', 40 + $number * 17 % 90 * 5),
        ];
    }

    /** @return list<string> as the new system has a holder to whom it gave a number of its own */
    private static function renumbered(int $number): array
    {
        [, $name, $street, $town, $since, $deposit] = self::old($number);
        [$first, $last] = explode(' ', $name, 2);
        $name = match (intdiv($number, 6) % 6) {
            0 => "{$last} {$first}",
            1 => mb_substr($first, 0, 1).". {$last}",
            2 => mb_strtoupper($name),
            3 => mb_substr($name, 0, -1),
            4 => strtr($name, ['ø' => 'o', 'ï' => 'i', 'ë' => 'e', 'ö' => 'o', 'à' => 'a', 'í' => 'i', 'ł' => 'l']),
            default => $name,
        };
        $street = intdiv($number, 6) % 4 === 1 ? strtr($street, ['Street' => 'St.', 'Road' => 'Rd.']) : $street;
        $deposit = intdiv($number, 6) % 9 === 5 ? '' : $deposit;

        return [(string) (70_000 + $number * 31 % 9_000), $name, $street, $town, $since, $deposit];
    }
}
