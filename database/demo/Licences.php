<?php

declare(strict_types=1);

namespace Database\Demo;

/** Licences by season, drawn from where both registers keep them. */
final class Licences
{
    public static function dataset(): DemoDataset
    {
        return new DemoDataset(
            name: 'licences',
            rows: 60_000,
            columns: self::columns(),
            row: static fn(int $number): array => [
                'licence_no' => sprintf('%s %05d', ['WN', 'WP', 'WT'][$number % 3], intdiv($number, 8)),
                'season' => (string) (2019 + $number % 8),
                'state' => ['active', 'lapsed', 'suspended'][$number % 3],
                'holder' => Wherrymoor::holder($number * 5),
                'fee' => sprintf('%d.%02d', 1200 + $number % 900, 12 + $number % 80),
                'balance' => sprintf('%d.%02d', 3 + $number % 200, 15 + $number % 70),
                'issued' => sprintf('20%02d-%02d-%02d', 19 + $number % 8, $number % 11 + 1, $number % 10 + 1),
                'agent' => sprintf('%04d', $number % Agents::IN_USE),
                'contact' => sprintf('0117 %03d %04d', $number % 900, $number * 13 % 10_000),
                'remarks' => $number % 40 === 0 ? 'Paid at the counter, receipt in drawer' : '',
                'office' => ['Upper reach', 'Lower reach'][$number % 2],
            ],
            faults: new DemoFaults(
                cells: [
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
                rows: [
                    'missing' => 12,
                    'extra' => 3,
                    'repeatedInSource' => 0,
                    'repeatedInTarget' => 0,
                    'repeatedInBoth' => 0,
                    'repeatedInSourceOnly' => 0,
                    'unkeyedInSource' => 0,
                    'unkeyedInTarget' => 0,
                ],
            ),
            rules: new DemoRules(
                pairs: [
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
                sums: ['season' => ['fee', 'balance']],
                records: [Agents::RULE],
            ),
            drawn: self::drawn(),
        );
    }

    public static function drawn(): DrawnFrom
    {
        return new DrawnFrom(
            'licence_book',
            'licences',
            array_keys(self::columns()->names),
            10_000,
            static fn(): array => Wherrymoor::generator(self::dataset())->sides(),
        );
    }

    private static function columns(): DemoColumns
    {
        $both = ['licence_no', 'season', 'state', 'holder', 'fee', 'balance', 'issued', 'agent', 'contact', 'remarks'];

        return new DemoColumns(key: ['licence_no', 'season'], names: [...array_combine($both, $both), 'office' => '']);
    }
}
