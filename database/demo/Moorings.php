<?php

declare(strict_types=1);

namespace Database\Demo;

/** The moorings of the trust, with every row class and nearly every cause. */
final class Moorings
{
    /** Berths of holders to whom the new system gave other numbers. */
    public const RENUMBERED = 40;

    public static function dataset(): DemoDataset
    {
        return new DemoDataset(
            name: 'moorings',
            rows: 12_000,
            columns: new DemoColumns(
                key: ['basin', 'berth'],
                names: [
                    'basin' => 'basin',
                    'berth' => 'berth',
                    'mooring_type' => 'mooring_type',
                    'status' => 'status',
                    'holder_name' => 'holder',
                    'boat_name' => 'boat_name',
                    'boat_length_m' => 'boat_length_m',
                    'annual_fee' => 'annual_fee',
                    'paid_until' => 'paid_until',
                    'electric_post' => 'electric_post',
                    'next_inspection' => 'next_inspection',
                    'notes' => 'notes',
                    'holder_no' => 'holder_no',
                    'clerk' => '',
                ],
                targetOnly: ['loaded_at'],
            ),
            row: static fn(int $number): array => [
                'basin' => Wherrymoor::BASINS[$number % 8],
                // Berth numbers restart in every basin; one basin's first berth never got a number: a partly blank key.
                'berth' => $number === 0 ? '' : sprintf('%03d%s', intdiv($number, 8) % 600 + 1, ['', 'A', 'B'][intdiv($number, 4800)]),
                'mooring_type' => ['End-on', 'Alongside', 'Visitor', 'Winter only'][$number % 4],
                'status' => ['A', 'S', 'V'][$number % 3],
                'holder_name' => Wherrymoor::holder($number),
                'boat_name' => Wherrymoor::BOATS[$number % 8],
                'boat_length_m' => sprintf('%d.%d', 5 + $number % 17, 1 + $number % 9),
                'annual_fee' => sprintf('%d.%02d', 180 + $number * 7 % 1300, 11 + $number % 37),
                'paid_until' => sprintf('202%d-%02d-%02d', 6 + $number % 2, $number % 12 + 1, $number % 11 + 1),
                'electric_post' => ['Y', 'N'][$number % 2],
                'next_inspection' => sprintf('2027-%02d-%02d', ($number % 12) + 1, 13 + ($number % 15)),
                'notes' => [
                    '',
                    'Shares post with next berth',
                    'Quay wall weeps; look again in spring',
                    "Ladder loose\nasked twice",
                    'Says "not before noon"',
                ][$number % 5],
                // Those who hold several berths have a number in the register of holders.
                'holder_no' => $number % 40 === 3 ? Holders::unchanged()[$number % count(Holders::unchanged())] : '',
                'clerk' => ['mjw', 'tb', 'hl'][$number % 3],
                'loaded_at' => '2026-11-24T02:10:09',
            ],
            faults: new DemoFaults(
                cells: [
                    Planted::inTarget(
                        'status',
                        'translated',
                        180,
                        static fn(string $value): string => ['A' => 'Active', 'S' => 'Suspended', 'V' => 'Vacant'][$value],
                    ),
                    Planted::inTarget(
                        'holder_name',
                        'spacing',
                        64,
                        static fn(string $value, int $nth): string => $nth % 2 === 0 ? str_replace(' ', '  ', $value) : "{$value}\u{00A0}",
                    ),
                    Planted::inTarget('holder_name', 'case', 41, static fn(string $value): string => mb_strtoupper($value)),
                    Planted::inTarget('holder_name', 'spacing+case', 7, static fn(string $value): string => ' '.mb_strtoupper($value)),
                    new Planted(
                        'holder_name',
                        'changed',
                        'truncated',
                        31,
                        static fn(string $value, int $nth): array => [
                            $value.' and partners, Wherrymoor',
                            mb_substr($value.' and partners, Wherrymoor', 0, 20),
                        ],
                    ),
                    Planted::pairs('holder_name', 'changed', 'encoding', 12, [
                        ['Ezekiel Thornøy', 'Ezekiel ThornÃ¸y'],
                        ['Maëlle Zabłocki', 'Ma?lle Zab?ocki'],
                    ]),
                    Planted::pairs('holder_name', 'changed', 'punctuation', 9, [
                        ["Bríd O'Marrow", 'Bríd O’Marrow'],
                        ['Ilse Ashcombe-Lane', 'Ilse Ashcombe–Lane'],
                    ]),
                    Planted::pairs('holder_name', 'changed', 'unicode', 6, [
                        ['Jörg Fenwright', "Jo\u{0308}rg Fenwright"],
                        ['Søren Dàvies', "Søren Da\u{0300}vies"],
                    ]),
                    Planted::pairs('holder_name', 'changed', 'accents', 6, [
                        ['Bríd Lindqvist', 'Brid Lindqvist'],
                        ['Tomasz Zabłocki', 'Tomasz Zablocki'],
                    ]),
                    Planted::inTarget(
                        'boat_name',
                        'invisible',
                        8,
                        static fn(string $value): string => mb_substr($value, 0, 4)."\u{200B}".mb_substr($value, 4),
                    ),
                    Planted::pairs('boat_name', 'changed', 'near-text', 5, [
                        ['Kingfisher II', 'Kingfihser II'],
                        ['Periwinkle', 'Perriwinkle'],
                    ]),
                    Planted::inTarget('annual_fee', 'rounding', 96, static fn(string $value): string => (string) (int) $value),
                    Planted::inTarget('annual_fee', 'number-form', 120, static fn(string $value): string => "{$value}0"),
                    Planted::inTarget(
                        'annual_fee',
                        'tolerance',
                        6,
                        static fn(string $value): string => substr($value, 0, -1).
                            ((int) substr($value, -1) === 9 ? '8' : (string) ((int) substr($value, -1) + 1)),
                    ),
                    Planted::inTarget('boat_length_m', 'scale', 9, static fn(string $value): string => str_replace('.', '', $value)),
                    Planted::inTarget(
                        'paid_until',
                        'date-form',
                        50,
                        static fn(string $value): string => implode('/', array_reverse(explode('-', $value))),
                    ),
                    Planted::inTarget(
                        'next_inspection',
                        'date-shift',
                        57,
                        static fn(string $value): string => (new \DateTimeImmutable($value))->modify('-1 day')->format('Y-m-d'),
                    ),
                    Planted::pairs('next_inspection', 'changed', 'unreadable', 3, [
                        ['2027-02-14', '00.00.0000'],
                        ['2027-31-02', '2027-03-03'],
                    ]),
                    Planted::inTarget(
                        'electric_post',
                        'yes-no-form',
                        20,
                        static fn(string $value): string => ['Y' => 'true', 'N' => 'false'][$value],
                    ),
                    new Planted('electric_post', 'blanked', 'blanked', 7, static fn(string $value): array => [$value, '']),
                    new Planted('notes', 'filled', 'filled', 11, static fn(string $value): array => ['', 'Taken over from the card index']),
                    Planted::pairs('notes', 'changed', 'line-ends', 6, [["Ladder loose\nasked twice", "Ladder loose\r\nasked twice"]]),
                    Planted::pairs('notes', 'changed', 'blank-token', 4, [['NULL', 'N/A']]),
                    // The new system gave these holders other numbers, as Holders matches them.
                    Planted::pairs('holder_no', 'changed', 'none', self::RENUMBERED, array_map(
                        static fn(string $old, string $new): array => [$old, $new],
                        array_keys(Holders::truth()),
                        array_values(Holders::truth()),
                    )),
                    Planted::pairs('notes', 'changed', 'none', 4, [
                        ['Shares post with next berth', 'Reserved for the dredger'],
                        ['Key at the lock house', 'See letter of May'],
                    ]),
                ],
                rows: [
                    'missing' => 214,
                    'extra' => 62,
                    'repeatedInSource' => 9,
                    'repeatedInTarget' => 4,
                    'repeatedInBoth' => 3,
                    'repeatedInSourceOnly' => 2,
                    'unkeyedInSource' => 3,
                    'unkeyedInTarget' => 2,
                ],
                refusedInSource: [
                    'KB;901;End-on;A;Half a record',
                    "LM;902;Visitor;V;Bad\xE9bytes;Old Ned;7.5;200.11;2026-01-01;Y;2027-01-14;;;tb",
                ],
                refusedInTarget: ['NQ,903,Visitor,V,"Quoted" and more,Old Ned,7.5,200.11,2026-01-01,Y,2027-01-14,,,2026-11-24T02:10:09'],
            ),
            rules: new DemoRules(
                pairs: [
                    'holder_name' => ['forgives' => ['spacing']],
                    'boat_length_m' => ['kind' => 'number', 'forgives' => ['number-form']],
                    'annual_fee' => [
                        'kind' => 'number',
                        'forgives' => ['number-form'],
                        'tolerance' => ['by' => 'absolute', 'most' => '0.01'],
                    ],
                    'next_inspection' => ['kind' => 'date', 'forgives' => ['date-form']],
                ],
                blankTokens: ['NULL', 'N/A'],
                // Some of the new system's days were written by hand.
                forms: ['paid_until' => ['dateForms' => ['yyyy-MM-dd', 'dd/MM/yyyy']]],
                // What a berth costs for each metre of the boat.
                rates: ['basin' => ['boat_length_m' => '4.50']],
            ),
            files: new DemoFiles(
                sourceDelimiter: ';',
                sourceLineEnd: "\n",
                targetBeginning: "\xEF\xBB\xBF",
            ),
        );
    }
}
