<?php

declare(strict_types=1);

namespace NineTally\Tests\Plan;

/** What PlanRulesTest and OlderPlansTest have in common. */
trait PlanOfEverything
{
    private const WHOLE = [
        'formatVersion' => 3,
        'key' => [['source' => 'basin', 'target' => 'basin', 'forgives' => ['case', 'spacing']]],
        'columnPairs' => [
            [
                'id' => 'pair-000000000001',
                'source' => 'fee',
                'target' => 'charge',
                'kind' => 'number',
                'forgives' => ['number-form'],
                'tolerance' => ['by' => 'absolute', 'most' => '0.01'],
                'rounding' => ['places' => 2, 'mode' => 'half-even'],
                'sensitive' => true,
            ],
            [
                'id' => 'pair-000000000002',
                'source' => 'status',
                'target' => 'state',
                'crosswalk' => [['source' => 'A', 'target' => 'Active'], ['source' => '7', 'target' => 'Seven']],
            ],
        ],
        'leftOut' => ['source' => ['clerk'], 'target' => []],
        'sides' => [
            'source' => [
                'blankTokens' => ['NULL'],
                'decimalMark' => ',',
                'currency' => 'kr',
                'percent' => 'share',
                'negatives' => 'minus-behind',
                'dateForms' => ['dd.MM.yy'],
                'twoDigitYearsFrom' => 1950,
                'zone' => 'Europe/London',
                'columns' => ['fee' => ['blankTokens' => ['-']]],
                'repeats' => [
                    'policy' => 'keep-highest',
                    'column' => 'seen',
                    'kind' => 'date',
                    'own' => [['differ' => ['seen'], 'policy' => 'keep-last'], ['differ' => [], 'policy' => 'keep-first']],
                ],
            ],
            'target' => ['yes' => ['ja'], 'no' => ['nee']],
        ],
        'bridges' => [['source' => ['KB'], 'target' => ['K-B']]],
        'refusedBridges' => [['source' => ['KB'], 'target' => ['KBX']]],
        'keptRows' => [[
            'side' => 'source',
            'key' => ['KB'],
            'group' => '2c26b46b68ffc68ff99b453c1d30413413422d706483bfa0f98a5e886266e7ae',
            'row' => 'fcde2b2edba56bf408601fb721fe9b5c338d10ee429ea04fae5511b68fbf8fb9',
            'reason' => 'Seen on site.',
        ]],
        'equivalents' => [['word' => 'street', 'meaning' => 'st']],
        'sensitive' => ['source' => ['basin', 'clerk']],
    ];
}
