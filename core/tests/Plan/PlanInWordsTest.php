<?php

declare(strict_types=1);

namespace NineTally\Tests\Plan;

use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\PlanInWords;
use NineTally\Core\Plan\PlanValues;
use NineTally\Core\Row\Side;
use PHPUnit\Framework\TestCase;

final class PlanInWordsTest extends TestCase
{
    use PlanOfEverything;

    public function test_says_what_is_compared_and_how_without_a_value_of_a_crosswalk(): void
    {
        $words = new PlanInWords(Plan::fromJson(CanonicalJson::of(self::WHOLE)));

        self::assertSame([['name' => 'basin', 'rule' => 'forgiven: case, spacing']], $words->key());
        self::assertSame([
            ['name' => 'fee → charge', 'rule' => 'a number; forgiven: number form; within 0.01; 2 decimal places on one side, half-even'],
            ['name' => 'status → state', 'rule' => 'text; by a crosswalk of 2 lines'],
        ], $words->pairs());
        self::assertSame(
            'of rows that share a key the one with the highest or latest seen is compared, the others are listed; '.
            'of those that differ in seen alone the last; of those that differ in nothing the first; for 1 key the row was chosen by hand',
            $words->repeats(Side::Source),
        );
        self::assertSame([
            'blank is also "NULL"', 'decimals begin with a comma', 'amounts are in kr', '5 % is 0.05',
            'the minus stands behind the number', 'dates are written as day.month.year (31.03.27)',
            'years of two digits are 1950 to 2049',
            'times are of Europe/London', 'in fee: blank is also "-"',
        ], $words->forms(Side::Source));
        self::assertSame(1, $words->bridges());
    }

    public function test_values_are_taken_out_and_rules_stay(): void
    {
        $step = ['id' => 'a', 'kind' => 'crosswalk', 'column' => 'entries', 'entries' => [['source' => 'A', 'target' => 'B']]];
        $document = [
            'sides' => ['source' => ['columns' => ['entries' => ['blankTokens' => ['-']]], 'preparation' => [$step]]],
        ] + self::WHOLE;
        $taken = PlanValues::takenOutOf($document);

        self::assertSame(6, $taken->count);
        self::assertStringNotContainsString('Active', CanonicalJson::of($taken->document));
        self::assertEquals(['source' => [
            'columns' => ['entries' => ['blankTokens' => ['-']]], 'preparation' => [['entries' => []] + $step],
        ]], $taken->document['sides'] ?? null);
        Plan::fromJson(CanonicalJson::of($taken->document));
    }
}
