<?php

declare(strict_types=1);

namespace NineTally\Tests\Plan;

use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\PlainRules;
use NineTally\Core\Plan\Plan;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** When rows of equal bytes are sure to agree: each rule that could make them differ, or asks for every row, is a hindrance. */
final class PlainRulesTest extends TestCase
{
    /** @param array<string, mixed> $rules */
    #[DataProvider('rules')]
    public function test_each_rule_that_could_hide_a_difference_is_named(array $rules, ?string $hindrance): void
    {
        $plan = Plan::fromJson(CanonicalJson::of($rules + [
            'formatVersion' => Plan::FORMAT_VERSION,
            'key' => [['source' => 'berth', 'target' => 'berth_no']],
            'columnPairs' => [self::PAIR],
            'leftOut' => ['source' => [], 'target' => []],
        ]));
        self::assertSame($hindrance === null ? [] : [$hindrance], PlainRules::hindrances($plan));
    }

    private const PAIR = ['id' => 'pair-000000000001', 'source' => 'fee', 'target' => 'charge'];

    /** @return iterable<string, array{array<string, mixed>, string|null}> */
    public static function rules(): iterable
    {
        yield 'none' => [[], null];
        yield 'causes that are forgiven' => [['columnPairs' => [['forgives' => ['case']] + self::PAIR]], null];
        yield 'the same form on both sides' => [
            ['columnPairs' => [['kind' => 'number'] + self::PAIR], 'sides' => [
                'source' => ['columns' => ['fee' => ['decimalMark' => ',']]],
                'target' => ['columns' => ['charge' => ['decimalMark' => ',']]],
            ]],
            null,
        ];
        yield 'another form on one side' => [
            [
                'columnPairs' => [['kind' => 'number'] + self::PAIR],
                'sides' => ['target' => ['columns' => ['charge' => ['decimalMark' => ',']]]],
            ],
            'both sides are read in different forms',
        ];
        yield 'a crosswalk' => [
            ['columnPairs' => [['crosswalk' => [['source' => '1', 'target' => '2']]] + self::PAIR]],
            'a crosswalk changes values',
        ];
        yield 'a step' => [
            ['sides' => ['source' => ['preparation' => [['id' => 'x', 'kind' => 'leave-out-blank-rows']]]]],
            'steps change rows before they are compared',
        ];
        yield 'a key by form' => [
            ['key' => [['source' => 'berth', 'target' => 'berth_no', 'forgives' => ['case']]]],
            'parts of the key are matched by their form',
        ];
        yield 'a total' => [
            ['totals' => [['measure' => 'sum', 'source' => 'fee', 'target' => 'charge']]],
            'control totals need every row',
        ];
    }
}
