<?php

declare(strict_types=1);

namespace NineTally\Tests\Plan;

use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\PlanChanges;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class PlanChangesTest extends TestCase
{
    /**
     * @param  array<string, mixed>  $before
     * @param  array<string, mixed>  $after
     * @param  list<string>  $changes
     */
    #[DataProvider('changes')]
    public function test_what_changed_is_said_in_words(array $before, array $after, array $changes): void
    {
        self::assertSame($changes, (new PlanChanges)->between($this->plan($before), $this->plan($after)));
    }

    /** @return iterable<string, array{array<string, mixed>, array<string, mixed>, list<string>}> */
    public static function changes(): iterable
    {
        $fee = ['id' => 'pair-000000000001', 'source' => 'fee', 'target' => 'charge'];
        $step = static fn(string $id, string $kind): array => ['id' => $id, 'kind' => $kind];
        $prepared = static fn(array ...$steps): array => ['sides' => ['source' => ['preparation' => $steps]]];
        yield 'nothing' => [[], [], []];
        yield 'only the id of a step' => [$prepared($step('a', 'leave-out-blank-rows')), $prepared($step('b', 'leave-out-blank-rows')), []];
        yield 'another key' => [
            [],
            ['key' => [['source' => 'berth', 'target' => 'berth_no']]],
            ['the key was basin and is berth → berth_no'],
        ];
        yield 'a pair more' => [[], ['columnPairs' => [$fee]], ['fee is compared with charge']];
        yield 'a tolerance' => [
            ['columnPairs' => [['kind' => 'number'] + $fee]],
            ['columnPairs' => [['kind' => 'number', 'tolerance' => ['by' => 'absolute', 'most' => '0.05']] + $fee]],
            ['fee has a tolerance of 0.05, absolute'],
        ];
        yield 'a tolerance taken away' => [
            ['columnPairs' => [['kind' => 'number', 'tolerance' => ['by' => 'absolute', 'most' => '0.05']] + $fee]],
            ['columnPairs' => [['kind' => 'number'] + $fee]],
            ['fee has no tolerance any more'],
        ];
        yield 'a crosswalk that grew' => [
            ['columnPairs' => [['crosswalk' => [['source' => 'A', 'target' => 'Active']]] + $fee]],
            ['columnPairs' => [['crosswalk' => [['source' => 'A', 'target' => 'Active'], ['source' => 'V', 'target' => 'Vacant']]] + $fee]],
            ['the crosswalk of fee has 2 entries, and had 1'],
        ];
        yield 'steps in another order' => [
            $prepared($step('a', 'leave-out-blank-rows'), ['columns' => ['x']] + $step('b', 'leave-out-columns')),
            $prepared(['columns' => ['x']] + $step('b', 'leave-out-columns'), $step('a', 'leave-out-blank-rows')),
            ['the steps of the source stand in another order'],
        ];
        yield 'a step that is switched off is gone' => [
            $prepared($step('a', 'leave-out-blank-rows')),
            $prepared(['off' => true] + $step('a', 'leave-out-blank-rows')),
            ['a step of the source is gone: Leave out rows with nothing in any column'],
        ];
        yield 'another policy for repeats' => [
            [],
            ['sides' => ['target' => ['repeats' => ['policy' => 'keep-first']]]],
            ['repeats of the target: keep-first, no longer set-aside'],
        ];
        yield 'a token that means blank' => [
            [],
            ['sides' => ['source' => ['blankTokens' => ['NULL']]]],
            ['how the source writes its values changed'],
        ];
        yield 'a sensitive column' => [[], ['sensitive' => ['source' => ['clerk']]], ['clerk is sensitive in the source']];
        yield 'a column left out' => [[], ['leftOut' => ['source' => ['clerk'], 'target' => []]], ['clerk is left out of the source']];
        yield 'bridges' => [
            [],
            [
                'bridges' => [['source' => ['KB'], 'target' => ['K']], ['source' => ['LM'], 'target' => ['L']]],
                'refusedBridges' => [['source' => ['NQ'], 'target' => ['N']]],
                'equivalents' => [['word' => 'street', 'meaning' => 'st']],
            ],
            ['2 bridges more', '1 refused bridge more', 'words that mean the same changed'],
        ];
        yield 'what a new pair forgives' => [
            [],
            ['defaults' => ['forgives' => ['spacing', 'case']]],
            ['a new pair forgives spacing, case, and forgave nothing'],
        ];
        yield 'a demand' => [['demands' => ['charge' => ['required' => true]]], [], ['the target demands nothing of charge any more']];
    }

    /** @param array<string, mixed> $document */
    private function plan(array $document): Plan
    {
        return Plan::fromJson(
            CanonicalJson::of(
                $document + ['formatVersion' => 3, 'key' => [['source' => 'basin', 'target' => 'basin']], 'columnPairs' => []],
            ),
        );
    }
}
