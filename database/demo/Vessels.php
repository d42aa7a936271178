<?php

declare(strict_types=1);

namespace Database\Demo;

/** An index of vessels, handed over by two offices, in which two columns changed places. */
final class Vessels
{
    public static function dataset(): DemoDataset
    {
        return new DemoDataset(
            name: 'vessels',
            rows: 300,
            columns: new DemoColumns(
                key: ['index_no'],
                names: [
                    'index_no' => 'index_no',
                    'name' => 'name',
                    'hull' => 'hull',
                    'length_m' => 'length_m',
                    'engine_year' => 'engine_year',
                    'builder' => 'builder',
                    'owner' => 'owner',
                ],
            ),
            row: static fn(int $number): array => [
                'index_no' => sprintf('W%05d', 40_000 + $number * 3),
                'name' => Wherrymoor::BOATS[$number % 8].($number >= 8 ? ' '.intdiv($number, 8) : ''),
                'hull' => ['steel', 'timber', 'glass fibre'][$number % 3],
                'length_m' => sprintf('%d.%02d', 6 + $number % 12, 25 + $number % 60),
                'engine_year' => (string) (1968 + $number % 50),
                'builder' => ['Harrow & Sons', 'Mere Boats', 'Tidewell Yard'][$number % 3],
                'owner' => Wherrymoor::holder($number * 3),
            ],
            faults: new DemoFaults(
                cells: [
                    new Planted('engine_year', 'blanked', 'blanked', 9, static fn(string $value): array => [$value, '']),
                    Planted::inTarget('engine_year', 'offset', 5, static fn(string $value): string => (string) ((int) $value + 1)),
                    Planted::inTarget('name', 'case', 4, static fn(string $value): string => mb_strtoupper($value)),
                    Planted::inTarget('length_m', 'number-form', 5, static fn(string $value): string => "{$value}00"),
                    Planted::swapped('builder', 'owner', 3),
                ],
                rows: [
                    'missing' => 0,
                    'extra' => 0,
                    'repeatedInSource' => 0,
                    'repeatedInTarget' => 0,
                    'repeatedInBoth' => 0,
                    'repeatedInSourceOnly' => 0,
                    'unkeyedInSource' => 0,
                    'unkeyedInTarget' => 0,
                ],
            ),
            rules: new DemoRules(
                pairs: ['length_m' => ['kind' => 'number', 'forgives' => ['number-form']]],
            ),
            files: new DemoFiles(
                sourceDelimiter: "\t",
                targetDelimiter: ';',
                sourceLineEnd: "\r\n",
                parts: ['vessels_old_upper.csv' => 'Upper reach', 'vessels_old_lower.csv' => 'Lower reach'],
                totalled: 'length_m',
            ),
        );
    }
}
