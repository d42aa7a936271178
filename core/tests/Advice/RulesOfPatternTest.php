<?php

declare(strict_types=1);

namespace NineTally\Tests\Advice;

use NineTally\Core\Advice\RulesOfPattern;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Value\Kind;
use PHPUnit\Framework\TestCase;

final class RulesOfPatternTest extends TestCase
{
    public function test_causes_of_form_are_forgiven_together(): void
    {
        self::assertSame(
            [['kind' => 'forgives', 'rule' => ['forgives' => ['spacing', 'case']], 'settles' => 41]],
            $this->rules(Kind::Text)->of('spacing+case', 41, [], false),
        );
        self::assertSame([], $this->rules(Kind::Text)->of('spacing+truncated', 41, [], false));
    }

    public function test_a_translation_becomes_a_crosswalk_of_all_its_value_pairs_or_of_none(): void
    {
        $pairs = array_map(static fn(int $one): array => ['source' => "S{$one}", 'target' => "T{$one}", 'cells' => 3], range(1, 1_000));
        [$offer] = $this->rules(Kind::Text)->of('translated', 3_000, $pairs, true);
        $entries = $offer['rule']['crosswalk'];

        self::assertSame(['crosswalk', 3_000], [$offer['kind'], $offer['settles']]);
        self::assertIsArray($entries);
        self::assertCount(1_000, $entries);
        self::assertSame(['source' => 'S1000', 'target' => 'T1000'], $entries[999]);
        self::assertSame([], $this->rules(Kind::Text)->of('translated', 3_000, $pairs, false));
    }

    public function test_tolerances_are_offered_in_steps_with_what_each_settles(): void
    {
        $pairs = [
            ['source' => '10.00', 'target' => '10.01', 'cells' => 2_994],
            ['source' => '7', 'target' => '6.97', 'cells' => 3],
            ['source' => '10.00', 'target' => '15.00', 'cells' => 3],
            ['source' => 'none', 'target' => '15.00', 'cells' => 9],
        ];

        self::assertSame(
            [['0.01', 2_994], ['0.05', 2_997], ['5', 3_000]],
            array_map(
                static fn(array $offer): array => [((array) $offer['rule']['tolerance'])['most'], $offer['settles']],
                array_values(
                    array_filter(
                        $this->rules(Kind::Number)->of('none', 3_009, $pairs, true),
                        static fn(array $offer): bool => $offer['kind'] === 'tolerance',
                    ),
                ),
            ),
        );
        self::assertSame([], $this->rules(Kind::Text)->of('none', 3_009, $pairs, true));
    }

    public function test_a_rounding_is_offered_in_the_ways_that_explain_it(): void
    {
        $pairs = [['source' => '2.25', 'target' => '2.2', 'cells' => 4], ['source' => '2.39', 'target' => '2.4', 'cells' => 5]];

        self::assertSame(
            [['half-even', 9], ['half-down', 9], ['half-up', 5], ['cut', 4]],
            array_map(
                static fn(array $offer): array => [((array) $offer['rule']['rounding'])['mode'], $offer['settles']],
                array_slice($this->rules(Kind::Number)->of('rounding', 9, $pairs, true), 0, 4),
            ),
        );
    }

    private function rules(Kind $kind): RulesOfPattern
    {
        return new RulesOfPattern(
            new ColumnPair('a', 'fee', 'fee', $kind, []),
            (new SideRules)->reading('fee', $kind),
            (new SideRules)->reading('fee', $kind),
        );
    }
}
