<?php

declare(strict_types=1);

namespace Database\Demo;

/**
 * Wherrymoor Navigation, an invented trust that runs moorings on inland waterways and moves its registers to a new system.
 * All names and figures are made up.
 */
final readonly class Wherrymoor
{
    public const SEED = 20261125;

    private const BASINS = ['KB', 'LM', 'NQ', 'OT', 'PW', 'RS', 'TH', 'UV'];

    private const FIRST_NAMES = [
        'Ezekiel', 'Ottoline', 'Bríd', 'Søren', 'Maëlle', 'Jörg', 'Aurelio', 'Wanda', 'Nnedi', 'Ilse', 'Tomasz', 'Hester',
    ];

    private const LAST_NAMES = [
        'Thornøy',
        "O'Marrow",
        'Pennywhistle', 'Ashcombe-Lane', 'Lindqvist', 'Van der Moor', 'Quillfeather', 'Dàvies', 'Fenwright', 'Saltmarsh', 'Zabłocki',
        'Underbridge',
    ];

    private const BOATS = [
        'Second Breakfast',
        'Slow Heron',
        'Marguerite',
        'Kingfisher II',
        'Très Lente',
        'Old Ned',
        'Wide Awake',
        'Periwinkle',
    ];

    /** @return list<DemoDataset> */
    public static function datasets(): array
    {
        return [self::moorings(), self::licences(), self::vessels()];
    }

    private static function moorings(): DemoDataset
    {
        return new DemoDataset(
            name: 'moorings',
            rows: 12_000,
            key: ['basin', 'berth'],
            columns: [
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
                'clerk' => '',
            ],
            targetOnly: ['loaded_at'],
            row: static fn(int $number): array => [
                'basin' => self::BASINS[$number % 8],
                // Berth numbers restart in every basin; one basin's first berth never got a number: a partly blank key.
                'berth' => $number === 0 ? '' : sprintf('%03d%s', intdiv($number, 8) % 600 + 1, ['', 'A', 'B'][intdiv($number, 4800)]),
                'mooring_type' => ['End-on', 'Alongside', 'Visitor', 'Winter only'][$number % 4],
                'status' => ['A', 'S', 'V'][$number % 3],
                'holder_name' => self::holder($number),
                'boat_name' => self::BOATS[$number % 8],
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
                'clerk' => ['mjw', 'tb', 'hl'][$number % 3],
                'loaded_at' => '2026-11-24T02:10:09',
            ],
            planted: [
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
                Planted::pairs('boat_name', 'changed', 'near-text', 5, [['Kingfisher II', 'Kingfihser II'], ['Periwinkle', 'Perriwinkle']]),
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
                Planted::pairs('next_inspection', 'changed', 'unreadable', 3, [['2027-02-14', '00.00.0000'], ['2027-31-02', '2027-03-03']]),
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
                Planted::pairs('notes', 'changed', 'none', 4, [
                    ['Shares post with next berth', 'Reserved for the dredger'],
                    ['Key at the lock house', 'See letter of May'],
                ]),
            ],
            rowsPlanted: [
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
                "LM;902;Visitor;V;Bad\xE9bytes;Old Ned;7.5;200.11;2026-01-01;Y;2027-01-14;;tb",
            ],
            refusedInTarget: ['NQ,903,Visitor,V,"Quoted" and more,Old Ned,7.5,200.11,2026-01-01,Y,2027-01-14,,2026-11-24T02:10:09'],
            sourceDelimiter: ';',
            sourceLineEnd: "\n",
            targetBeginning: "\xEF\xBB\xBF",
            rules: [
                'holder_name' => ['forgives' => ['spacing']],
                'boat_length_m' => ['kind' => 'number', 'forgives' => ['number-form']],
                'annual_fee' => ['kind' => 'number', 'forgives' => ['number-form'], 'tolerance' => ['by' => 'absolute', 'most' => '0.01']],
                'next_inspection' => ['kind' => 'date', 'forgives' => ['date-form']],
            ],
            blankTokens: ['NULL', 'N/A'],
            // Some of the new system's days were written by hand.
            forms: ['paid_until' => ['dateForms' => ['yyyy-MM-dd', 'dd/MM/yyyy']]],
        );
    }

    private static function licences(): DemoDataset
    {
        return new DemoDataset(
            name: 'licences',
            rows: 60_000,
            key: ['licence_no', 'season'],
            columns: [
                'licence_no' => 'licence_no',
                'season' => 'season',
                'state' => 'state',
                'holder' => 'holder',
                'fee' => 'fee',
                'balance' => 'balance',
                'issued' => 'issued',
                'agent' => 'agent',
                'contact' => 'contact',
                'remarks' => 'remarks',
            ],
            targetOnly: [],
            row: static fn(int $number): array => [
                'licence_no' => sprintf('%s %05d', ['WN', 'WP', 'WT'][$number % 3], intdiv($number, 8)),
                'season' => (string) (2019 + $number % 8),
                'state' => ['active', 'lapsed', 'suspended'][$number % 3],
                'holder' => self::holder($number * 5),
                'fee' => sprintf('%d.%02d', 1200 + $number % 900, 12 + $number % 80),
                'balance' => sprintf('%d.%02d', 3 + $number % 200, 15 + $number % 70),
                'issued' => sprintf('20%02d-%02d-%02d', 19 + $number % 8, $number % 11 + 1, $number % 10 + 1),
                'agent' => sprintf('%04d', $number % 88),
                'contact' => sprintf('0117 %03d %04d', $number % 900, $number * 13 % 10_000),
                'remarks' => $number % 40 === 0 ? 'Paid at the counter, receipt in drawer' : '',
            ],
            planted: [
                new Planted('state', 'changed', 'untranslated', 24, static fn(string $value): array => [$value, $value]),
                Planted::inTarget('fee', 'number-form', 240, static fn(string $value): string => $value[0].','.substr($value, 1)),
                Planted::inTarget('balance', 'sign', 18, static fn(string $value): string => "-{$value}"),
                new Planted(
                    'issued',
                    'changed',
                    'day-month',
                    25,
                    static fn(string $value, int $nth): array => [
                        sprintf('2024-%02d-%02d', ($nth % 5) + 1, ($nth % 4) + 8),
                        sprintf('2024-%02d-%02d', ($nth % 4) + 8, ($nth % 5) + 1),
                    ],
                ),
                Planted::inTarget(
                    'agent',
                    'leading-zeros',
                    75,
                    static fn(string $value): string => ltrim($value, '0') === '' ? '0' : ltrim($value, '0'),
                ),
                new Planted('contact', 'blanked', 'blanked', 22, static fn(string $value): array => [$value, '']),
                Planted::inTarget('holder', 'spacing', 35, static fn(string $value): string => " {$value}"),
            ],
            rowsPlanted: [
                'missing' => 12,
                'extra' => 3,
                'repeatedInSource' => 0,
                'repeatedInTarget' => 0,
                'repeatedInBoth' => 0,
                'repeatedInSourceOnly' => 0,
                'unkeyedInSource' => 0,
                'unkeyedInTarget' => 0,
            ],
            refusedInSource: [],
            refusedInTarget: [],
            sourceLineEnd: "\r\n",
            rules: [
                'state' => [
                    'crosswalk' => [
                        ['source' => 'active', 'target' => 'A'],
                        ['source' => 'lapsed', 'target' => 'L'],
                        ['source' => 'suspended', 'target' => 'S'],
                    ],
                ],
                'agent' => ['forgives' => ['leading-zeros']],
                'contact' => ['sensitive' => true],
            ],
            forms: ['fee' => ['groupMark' => ',']],
            codes: ['state' => ['active' => 'A', 'lapsed' => 'L', 'suspended' => 'S']],
            parts: ['licences_old_upper.csv' => 'Upper reach', 'licences_old_lower.csv' => 'Lower reach'],
            totalled: 'fee',
        );
    }

    private static function vessels(): DemoDataset
    {
        return new DemoDataset(
            name: 'vessels',
            rows: 300,
            key: ['index_no'],
            columns: [
                'index_no' => 'index_no',
                'name' => 'name',
                'hull' => 'hull',
                'length_m' => 'length_m',
                'engine_year' => 'engine_year',
                'builder' => 'builder',
                'owner' => 'owner',
            ],
            targetOnly: [],
            row: static fn(int $number): array => [
                'index_no' => sprintf('W%05d', 40_000 + $number * 3),
                'name' => self::BOATS[$number % 8].($number >= 8 ? ' '.intdiv($number, 8) : ''),
                'hull' => ['steel', 'timber', 'glass fibre'][$number % 3],
                'length_m' => sprintf('%d.%02d', 6 + $number % 12, 25 + $number % 60),
                'engine_year' => (string) (1968 + $number % 50),
                'builder' => ['Harrow & Sons', 'Mere Boats', 'Tidewell Yard'][$number % 3],
                'owner' => self::holder($number * 3),
            ],
            planted: [
                new Planted('engine_year', 'blanked', 'blanked', 9, static fn(string $value): array => [$value, '']),
                Planted::inTarget('engine_year', 'offset', 5, static fn(string $value): string => (string) ((int) $value + 1)),
                Planted::inTarget('name', 'case', 4, static fn(string $value): string => mb_strtoupper($value)),
                Planted::inTarget('length_m', 'number-form', 5, static fn(string $value): string => "{$value}00"),
                Planted::swapped('builder', 'owner', 3),
            ],
            rowsPlanted: [
                'missing' => 0,
                'extra' => 0,
                'repeatedInSource' => 0,
                'repeatedInTarget' => 0,
                'repeatedInBoth' => 0,
                'repeatedInSourceOnly' => 0,
                'unkeyedInSource' => 0,
                'unkeyedInTarget' => 0,
            ],
            refusedInSource: [],
            refusedInTarget: [],
            sourceDelimiter: "\t",
            targetDelimiter: ';',
            rules: ['length_m' => ['kind' => 'number', 'forgives' => ['number-form']]],
        );
    }

    private static function holder(int $number): string
    {
        return self::FIRST_NAMES[$number % 12].' '.self::LAST_NAMES[intdiv($number, 12) % 12];
    }
}
