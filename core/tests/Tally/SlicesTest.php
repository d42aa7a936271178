<?php

declare(strict_types=1);

namespace NineTally\Tests\Tally;

use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Comparison\SignedDifference;
use NineTally\Core\Tally\PatternCounter;
use NineTally\Core\Tally\SliceOfFindings;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Slices of the findings: together they say what merging all at once says. */
final class SlicesTest extends TestCase
{
    #[DataProvider('slices')]
    public function test_patterns_of_slices_put_together_are_those_of_all_cells_at_once(int $slices, int $kindsOfLetters): void
    {
        mt_srand(20261201 + $slices);
        $cells = [];
        for ($number = 0; $number < 3_000; $number++) {
            $from = mt_rand(0, 40) / 10;
            $to = mt_rand(0, 40) / 10;
            $cells[] = [
                mt_rand(0, 2),
                [CellClass::Changed, CellClass::Blanked][mt_rand(0, 1)],
                ['sign', 'near-text'][mt_rand(0, 1)],
                mt_rand(0, 4) === 0 ? ['to' => mt_rand(1, 3)] : [],
                (string) $from,
                (string) $to,
                SignedDifference::ofPlain((string) $from, sprintf('%.'.mt_rand(1, 3).'f', $to)),
                'letters '.mt_rand(1, $kindsOfLetters),
            ];
        }
        $all = new PatternCounter;
        foreach ($cells as $cell) {
            $all->count(...$cell);
        }
        $together = new PatternCounter;
        foreach (array_chunk($cells, max(1, intdiv(count($cells), $slices) + 1)) as $chunk) {
            $slice = PatternCounter::ofSlice();
            foreach ($chunk as $cell) {
                $slice->count(...$cell);
            }
            self::assertTrue($slice->isWhole());
            $kept = unserialize(serialize($slice));
            $together->take($kept instanceof PatternCounter ? $kept : self::fail('It is kept in a file.'));
        }
        self::assertEquals($all->patterns(), $together->patterns());
        self::assertSame(serialize($all->patterns()), serialize($together->patterns()), 'To the last place of each number.');
    }

    /** @return iterable<array{int, int}> */
    public static function slices(): iterable
    {
        yield 'few kinds of letters' => [2, 20];
        yield 'more than are told' => [5, 700];
    }

    public function test_slices_have_every_line_once_in_their_order(): void
    {
        foreach ([0, 1, 5, 1_000] as $lines) {
            $next = 0;
            foreach (array_slice(SliceOfFindings::all(4), 0, 4) as $slice) {
                $same = SliceOfFindings::ofTask($slice->task());
                [$from, $to] = $same->lines($lines);
                self::assertSame($next, $from);
                $next = $to;
            }
            self::assertSame(PHP_INT_MAX, $next);
        }
    }
}
