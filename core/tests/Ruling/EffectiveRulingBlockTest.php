<?php

declare(strict_types=1);

namespace NineTally\Tests\Ruling;

use NineTally\Core\Ruling\BlockMembers;
use NineTally\Core\Ruling\EffectiveRulingBlock;
use PHPUnit\Framework\TestCase;

/** Acts laid over a block, held against a plain list of the newest act of each finding. */
final class EffectiveRulingBlockTest extends TestCase
{
    public function test_the_newest_act_stands_for_each_finding(): void
    {
        mt_srand(20_261_126);
        $decisions = ['expected', 'defect', 'ask', 'open'];
        $block = EffectiveRulingBlock::undecided();
        $newest = array_fill(0, EffectiveRulingBlock::FINDINGS, null);
        for ($act = 1; $act <= 1_000; $act++) {
            // Mostly single findings, so that there come to be as many acts as findings; now and then many at once.
            $places = (array) array_rand($newest, $act % 97 === 0 ? mt_rand(1, EffectiveRulingBlock::FINDINGS) : 1);
            $block = $block->ruled(
                $act,
                $decisions[$act % 4],
                BlockMembers::at(implode('', array_map(chr(...), [...array_reverse($places), $places[0]]))),
            );
            $newest = array_replace($newest, array_fill_keys($places, $act));

            $standing = array_filter($newest);
            self::assertEquals(array_count_values($standing), $block->findingsByAct());
            self::assertEquals(
                array_count_values(array_map(static fn(int $act): string => $decisions[$act % 4], $standing)),
                $block->findingsByDecision(),
            );
            self::assertSame(
                array_map(static fn(?int $act): int => $act === null ? 0 : $act % 4, $newest),
                array_map(ord(...), str_split($block->decided(['expected' => 0, 'defect' => 1, 'ask' => 2, 'open' => 3]))),
            );
            self::assertSame(
                array_map(static fn(?int $act): string => $act === null || $act % 4 === 3 || $act === 7 ? "\1" : "\0", $newest),
                str_split($block->meant(static fn(int $act, string $decision): bool => $decision === 'open' || $act === 7, true)),
            );
            self::assertSame(
                $newest,
                array_map(static fn(string $mark): ?int => $mark === "\0" ? null : $block->acts[ord($mark) - 1], str_split($block->marks)),
            );
        }
        self::assertEquals($block, EffectiveRulingBlock::kept($block->acts, $block->decisions, $block->marks));
    }

    public function test_as_many_acts_as_findings_fit_and_one_over_all_ends_them(): void
    {
        $block = EffectiveRulingBlock::undecided();
        self::assertTrue($block->isUndecided());
        for ($place = 0; $place < EffectiveRulingBlock::FINDINGS; $place++) {
            $block = $block->ruled($place + 1, 'ask', BlockMembers::at(chr($place)));
        }
        self::assertCount(EffectiveRulingBlock::FINDINGS, $block->acts);

        $all = $block->ruled(900, 'expected', BlockMembers::first(EffectiveRulingBlock::FINDINGS + 5));
        self::assertSame(
            [[900], ['expected'], [900 => EffectiveRulingBlock::FINDINGS]],
            [$all->acts, $all->decisions, $all->findingsByAct()],
        );
        self::assertSame(
            array_fill_keys([...range(8, EffectiveRulingBlock::FINDINGS)], 1) + [900 => 7],
            $block->ruled(900, 'expected', BlockMembers::first(7))->findingsByAct(),
        );
    }

    public function test_a_damaged_block_and_a_place_outside_are_refused(): void
    {
        foreach (
            [
                static fn() => EffectiveRulingBlock::kept([1], ['ask'], str_repeat("\2", EffectiveRulingBlock::FINDINGS)),
                static fn() => EffectiveRulingBlock::kept([1], ['ask'], "\1"),
                static fn() => EffectiveRulingBlock::kept([], ['ask'], str_repeat("\0", EffectiveRulingBlock::FINDINGS)),
                static fn() => EffectiveRulingBlock::kept([], [], str_repeat("\1", EffectiveRulingBlock::FINDINGS)),
            ]
            as $damaged
        ) {
            try {
                $damaged();
                self::fail('The block was taken.');
            } catch (\UnexpectedValueException $refused) {
                self::assertStringContainsString('damaged', $refused->getMessage());
            }
        }
        $this->expectException(\OutOfRangeException::class);
        BlockMembers::at(chr(EffectiveRulingBlock::FINDINGS));
    }
}
