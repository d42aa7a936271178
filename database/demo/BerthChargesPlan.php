<?php

declare(strict_types=1);

namespace Database\Demo;

/** How berth charges are prepared, matched and proved. */
final readonly class BerthChargesPlan
{
    /** @return array<string, mixed> the plan that brings both sides together, as plans are written */
    public static function document(): array
    {
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];

        return [
            'formatVersion' => 3,
            'key' => [$same('basin'), $same('band'), $same('season')],
            'columnPairs' => [['id' => 'pair-c4a26e000001', ...$same('charge'), 'kind' => 'number', 'forgives' => ['number-form']]],
            'leftOut' => ['source' => [], 'target' => []],
            'totals' => self::totals(),
            'sides' => [
                'source' => [
                    'preparation' => [
                        [
                            'id' => 'totals',
                            'kind' => 'leave-out-rows',
                            'condition' => ['column' => 'basin', 'test' => 'is-blank'],
                            'reason' => 'the total at the foot of each file',
                            'answersFor' => 'Ruth Osei',
                        ],
                        [
                            'id' => 'seasons',
                            'kind' => 'columns-into-rows',
                            'columns' => array_map(static fn(int $season): string => "s{$season}", BerthCharges::SEASONS),
                            'namesInto' => 'season',
                            'valuesInto' => 'charge',
                        ],
                        [
                            'id' => 'season',
                            'kind' => 'tidy-text',
                            'columns' => ['season'],
                            'actions' => [['action' => 'replace', 'find' => 's', 'with' => '']],
                        ],
                        [
                            'id' => 'band',
                            'kind' => 'tidy-text',
                            'columns' => ['band'],
                            'actions' => [['action' => 'trim'], ['action' => 'replace', 'find' => '-', 'with' => '–']],
                        ],
                    ],
                ],
                'target' => [
                    'preparation' => [
                        [
                            'id' => 'basin',
                            'kind' => 'look-up',
                            'reference' => 'Basins',
                            'on' => [['column' => 'basin_id', 'reference' => 'id']],
                            'take' => [['reference' => 'code', 'into' => 'basin']],
                        ],
                        [
                            'id' => 'band',
                            'kind' => 'look-up-band',
                            'reference' => 'Length bands',
                            'column' => 'length_from',
                            'from' => 'from_m',
                            'take' => [['reference' => 'band', 'into' => 'band']],
                        ],
                        ['id' => 'charge', 'kind' => 'read-number', 'columns' => ['charge'], 'reading' => ['decimalMark' => ',']],
                    ],
                ],
            ],
        ];
    }

    /** @return list<array<string, mixed>> figures that both sides must have in common */
    public static function totals(): array
    {
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];

        return [
            ['measure' => 'sum', ...$same('charge'), 'by' => [$same('basin')]],
            ['measure' => 'sum', ...$same('charge'), 'by' => [$same('season')], 'over' => 'matched'],
            ['measure' => 'rows', 'by' => [$same('season')]],
            ['measure' => 'distinct', ...$same('season'), 'by' => [$same('band')]],
            ['measure' => 'greatest', ...$same('charge')],
            ['measure' => 'blanks', ...$same('charge')],
        ];
    }
}
