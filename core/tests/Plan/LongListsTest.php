<?php

declare(strict_types=1);

namespace NineTally\Tests\Plan;

use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\Problem;
use NineTally\Core\Plan\UnusablePlan;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** A plan may hold tens of thousands of bridges and entries: what is wrong in one of them is said as in a short list. */
final class LongListsTest extends TestCase
{
    private const ROWS = 20_000;

    public function test_long_lists_are_read_whole_in_little_memory(): void
    {
        memory_reset_peak_usage();
        $before = memory_get_usage();
        $plan = Plan::fromJson(CanonicalJson::of(self::plan()));

        // The schema alone needs 5 kB for a line.
        self::assertLessThan(60_000_000, memory_get_peak_usage() - $before);
        self::assertSame(
            [self::ROWS, self::ROWS, self::ROWS],
            [
                count($plan->bridges->confirmed),
                count($plan->columnPairs[0]->crosswalk),
                count($plan->source->preparation->steps[0]['entries'] ?? []),
            ],
        );
    }

    /** @param array<string, mixed> $spoilt what stands there instead */
    #[DataProvider('spoilt')]
    public function test_what_is_wrong_in_them_has_its_place(array $spoilt, string $pointer): void
    {
        try {
            Plan::fromJson(CanonicalJson::of(array_replace_recursive(self::plan(300), $spoilt)));
            self::fail('Nothing was wrong.');
        } catch (UnusablePlan $wrong) {
            self::assertSame([$pointer], array_map(static fn(Problem $problem): string => $problem->pointer, $wrong->problems));
        }
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function spoilt(): iterable
    {
        yield 'a bridge with a number for a key' => [['bridges' => [250 => ['target' => [7]]]], '/bridges/250/target/0'];
        yield 'a bridge that is right on neither side' => [['bridges' => [250 => ['right' => 'both']]], '/bridges/250/right'];
        yield 'an entry with a number' => [
            ['columnPairs' => [['crosswalk' => [250 => ['target' => 7]]]]],
            '/columnPairs/0/crosswalk/250/target',
        ];
        yield 'an entry with something more' => [
            ['sides' => ['source' => ['preparation' => [['entries' => [250 => ['note' => 'x']]]]]]],
            '/sides/source/preparation/0/entries/250',
        ];
    }

    /** @return array<string, mixed> */
    private static function plan(int $rows = self::ROWS): array
    {
        $bridges = $entries = [];
        for ($row = 0; $row < $rows; $row++) {
            $bridges[] = ['source' => ["H{$row}"], 'target' => ["9{$row}"], ...$row % 2 === 0 ? ['right' => 'source'] : []];
            $entries[] = ['source' => "a{$row}", 'target' => "b{$row}"];
        }

        return [
            'formatVersion' => 3,
            'key' => [['source' => 'no', 'target' => 'number']],
            'columnPairs' => [['id' => 'pair-0a1b2c3d4e5f', 'source' => 'a', 'target' => 'b', 'crosswalk' => $entries]],
            'bridges' => $bridges,
            'sides' => ['source' => ['preparation' => [['id' => 's', 'kind' => 'crosswalk', 'column' => 'a', 'entries' => $entries]]]],
        ];
    }
}
