<?php

declare(strict_types=1);

namespace NineTally\Tests\Ruling;

use NineTally\Core\Ruling\GroupPostingBlock;
use NineTally\Core\Ruling\GroupPostingBuilder;
use PHPUnit\Framework\TestCase;

/** What is counted from the places, held against the findings themselves. */
final class GroupPostingBlockTest extends TestCase
{
    public function test_counts_findings_and_rows_of_any_choice_by_stretch(): void
    {
        mt_srand(20_261_126);
        $findings = [];
        for ($row = 1; $row < 250_000; $row += mt_rand(1, 400)) {
            foreach (['pattern:1', 'pattern:2', 'class:missing'] as $group) {
                mt_rand(0, 2) === 0 || $findings[] = [$group, $row, mt_rand(0, 3) !== 0];
            }
        }
        $places = new GroupPostingBuilder;
        $parts = [];
        foreach ($findings as [$group, $row]) {
            foreach ($places->add($group, $row) as $ended => $part) {
                $parts[$ended][] = $part;
            }
        }
        foreach ($places->end() as $ended => $part) {
            $parts[$ended][] = $part;
        }

        self::assertSame(
            ['class:missing', 'pattern:1', 'pattern:2'],
            [...array_intersect(['class:missing', 'pattern:1', 'pattern:2'], array_keys($parts))],
        );
        foreach ($parts as $group => $some) {
            $own = array_values(array_filter($findings, static fn(array $finding): bool => $finding[0] === $group));
            self::assertSame([0, 1, 2], array_map(static fn(GroupPostingBlock $part): int => $part->part, $some));
            $passed = 0;
            foreach ($some as $part) {
                $here = array_slice($own, $passed, $part->total());
                $passed += $part->total();
                $meant = implode('', array_map(static fn(array $finding): string => $finding[2] ? "\1" : "\0", $here));
                $expected = array_fill(0, GroupPostingBlock::STRETCHES, []);
                foreach ($here as [, $row, $isMeant]) {
                    self::assertSame($part->part, intdiv($row, 100_000));
                    $isMeant && $expected[intdiv($row, 1_000) % 100][$row % 1_000] = true;
                }
                // What the same findings say twice is one row.
                self::assertSame(
                    array_map(count(...), $expected),
                    array_map(
                        static fn(string $rows): int => count(GroupPostingBlock::findingsByRow($rows.$rows)),
                        $part->rowsOf($meant),
                    ),
                );
                self::assertSame(
                    array_map(static fn(array $rows): array => array_map(static fn(): int => 2, $rows), $expected),
                    array_map(static fn(string $rows): array => GroupPostingBlock::findingsByRow($rows.$rows), $part->rowsOf($meant)),
                );
                self::assertSame(array_map(count(...), $expected), $part->countsOf($meant));
                $asked = array_map(
                    static fn(array $rows): string => $rows === []
                        ? ''
                        : implode(
                            '',
                            array_map(
                                static fn(int $row): string => isset($rows[$row]) && $row % 3 > 0 ? "\1" : "\0",
                                range(0, GroupPostingBlock::ROWS - 1),
                            ),
                        ),
                    array_values($expected),
                );
                self::assertSame(
                    implode(
                        '',
                        array_map(
                            static fn(array $finding): string => isset($expected[intdiv($finding[1], 1_000) % 100][$finding[1] % 1_000]) &&
                            ($finding[1] % 1_000) % 3 > 0
                                ? "\1"
                                : "\0",
                            $here,
                        ),
                    ),
                    $part->inRows($asked),
                );
                self::assertSame($part->counts(), $part->countsOf(str_repeat("\1", $part->total())));
            }
            self::assertCount($passed, $own);
        }
    }
}
