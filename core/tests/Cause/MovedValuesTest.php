<?php

declare(strict_types=1);

namespace NineTally\Tests\Cause;

use NineTally\Core\Comparison\CellFinding;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Tally\TallySettings;
use NineTally\Tests\Tally\Tallied;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Values that stand in another column of their row. */
final class MovedValuesTest extends TestCase
{
    use Tallied;

    public function test_a_value_that_stands_in_another_column_moved(): void
    {
        $source = "berth,holder,tenant\n1,Ezekiel,\n2,Hester,\n3,Wanda,\n4,Ilse,\n5,Ann,\n6,Tomasz,\n";
        $target = "berth,holder,tenant\n1,,Ezekiel\n2,,Hester\n3,,Wanda\n4,,Ilse\n5,,Ann\n6,,Brid\n";
        $summary = $this->tally($source, $target, ['berth']);

        self::assertSame(
            [
                ...array_fill(0, 4, ['changed moved', 'changed moved']),
                ['blanked blanked', 'filled filled'],
                ['blanked blanked', 'filled filled'],
            ],
            array_map(
                static fn($row): array => array_map(
                    static fn(CellFinding $cell): string => "{$cell->class->value} {$cell->cause}",
                    $row->cells,
                ),
                $this->found,
            ),
        );
        self::assertSame(
            ['changed' => 8, 'blanked' => 2, 'filled' => 2],
            array_intersect_key($summary->cells(), ['changed' => 1, 'blanked' => 1, 'filled' => 1]),
        );
        self::assertSame(['from' => 'holder', 'to' => 'tenant'], $summary->patterns[0]->facts);
    }

    /**
     * @param  list<string>  $causes
     */
    #[DataProvider('moves')]
    public function test_a_value_may_stand_in_any_column_of_its_row(string $source, string $target, array $causes): void
    {
        foreach ([1, 4] as $partitions) {
            [$old, $new] = [$this->reader($source, 'old.csv'), $this->reader($target, 'new.csv')];
            $this->tallyOf(
                Plan::pairing($old->columns, $new->columns, ['berth']),
                $old,
                $new,
                settings: new TallySettings(partitions: $partitions),
            );

            self::assertSame(
                $causes,
                array_map(
                    static fn($row): string => implode(
                        ', ',
                        array_map(
                            static fn(CellFinding $cell): string => trim(
                                "{$cell->class->value} {$cell->cause} ".implode('>', $cell->facts),
                            ),
                            $row->cells,
                        ),
                    ),
                    $this->found,
                ),
            );
        }
    }

    /** @return iterable<string, array{string, string, list<string>}> */
    public static function moves(): iterable
    {
        $rows = static fn(string $header, string ...$rows): string => "{$header}\n".
            implode(
                '',
                array_map(
                    static fn(string $row, int $nth): string => $nth + 1 .",{$row}\n",
                    array_values($rows),
                    array_keys(array_values($rows)),
                ),
            );
        yield 'to a column that is in no pair' => [
            $rows('berth,holder', 'Ezekiel', 'Hester', 'Wanda'),
            $rows('berth,holder,tenant', ',Ezekiel', ',Hester', ',Wanda'),
            array_fill(0, 3, 'changed moved holder>tenant'),
        ];
        yield 'over another, which is right itself' => [
            $rows('berth,holder,agent', 'Ezekiel,Quill', 'Hester,Moor', 'Wanda,Fenn'),
            $rows('berth,holder,agent', 'Quill,Quill', 'Moor,Moor', 'Fenn,Fenn'),
            ['changed moved agent>holder', 'changed moved agent>holder', 'changed moved agent>holder'],
        ];
        yield 'what stood there before has not moved' => [
            $rows('berth,holder,agent', 'Ezekiel,Ezekiel', 'Hester,Hester', 'Wanda,Wanda'),
            $rows('berth,holder,agent', ',Ezekiel', ',Hester', ',Wanda'),
            array_fill(0, 3, 'blanked blanked'),
        ];
        yield 'two are no pattern' => [
            $rows('berth,holder', 'Ezekiel', 'Hester'),
            $rows('berth,holder,tenant', ',Ezekiel', ',Hester'),
            array_fill(0, 2, 'blanked blanked'),
        ];
        yield 'three letters may stand anywhere' => [
            $rows('berth,holder', 'Ann', 'Bo', 'Di'),
            $rows('berth,holder,tenant', ',Ann', ',Bo', ',Di'),
            array_fill(0, 3, 'blanked blanked'),
        ];
    }
}
