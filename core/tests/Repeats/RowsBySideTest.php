<?php

declare(strict_types=1);

namespace NineTally\Tests\Repeats;

use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Plan\Bridge;
use NineTally\Core\Plan\Bridges;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Row;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\RowsBySide;
use NineTally\Tests\Tally\Tallied;
use PHPUnit\Framework\TestCase;

/** Which rows stand on one side alone, held against what a tally says of them. */
final class RowsBySideTest extends TestCase
{
    use Tallied;

    public function test_every_row_is_alone_on_both_sides_or_without_a_key(): void
    {
        $plan = new Plan(
            [new KeyColumn('no', 'number', ['case'])],
            [],
            bridges: new Bridges([
                new Bridge(['H2'], ['701']),
                new Bridge(['H4'], ['702']),
            ]),
        );
        $old = $this->reader("no,name\nH1,Ilse\nH2,Ezekiel\nH3,Tove\nH3,Tove\nH4,Imre\n,Nobody\n", 'old.csv');
        $new = $this->reader("number,who\nh1,Ilse\n701,Ezekiel\nH4,Imre\n702,Ruth\n", 'new.csv');
        $rows = new RowsBySide($plan, new Sides($old, $new), $this->folder('by-side'));

        self::assertSame(
            [
                'source' => ['alone' => 2, 'both' => 3, 'unkeyed' => 1],
                // The bridge to 702 is idle, for H4 has a counterpart.
                'target' => ['alone' => 1, 'both' => 3, 'unkeyed' => 0],
            ],
            $rows->counts()->named(),
        );
        self::assertSame(['Tove', 'Tove'], self::second($rows->rows(Side::Source, RowsBySide::ALONE)));
        self::assertSame(['Ilse', 'Ezekiel', 'Imre'], self::second($rows->rows(Side::Target, RowsBySide::BOTH)));
        self::assertSame(['Nobody'], self::second($rows->rows(Side::Source, RowsBySide::UNKEYED)));
    }

    public function test_what_a_tally_calls_missing_or_extra_is_alone(): void
    {
        mt_srand(8);
        for ($round = 0; $round < 12; $round++) {
            $of = static fn(): string => "k,v\n".
                implode('', array_map(static fn(): string => mt_rand(1, 60).','.mt_rand(1, 9)."\n", range(1, 40)));
            $plan = new Plan([new KeyColumn('k', 'k')], []);
            [$old, $new] = [$this->reader($of(), 'old.csv'), $this->reader($of(), 'new.csv')];
            $this->tallyOf($plan, $old, $new);
            $rows = new RowsBySide($plan, new Sides($old, $new), $this->folder("by-side-{$round}"));
            foreach ([[Side::Source, RowClass::Missing], [Side::Target, RowClass::Extra]] as [$side, $class]) {
                $lines = array_map(
                    static fn(RowFinding $finding): int => $finding->record()->line ?? 0,
                    array_values(array_filter($this->found, static fn(RowFinding $finding): bool => $finding->class === $class)),
                );
                $alone = array_map(static fn(Row $row): int => $row->line, iterator_to_array($rows->rows($side, RowsBySide::ALONE), false));

                self::assertSame([], array_diff($lines, $alone), "round {$round}");
                self::assertSame(
                    [40, count($alone)],
                    [array_sum($rows->counts()->of($side)), $rows->counts()->of($side)[RowsBySide::ALONE]],
                );
            }
        }
    }

    /**
     * @param  iterable<Row>  $rows
     * @return list<string>
     */
    private static function second(iterable $rows): array
    {
        $cells = [];
        foreach ($rows as $row) {
            $cells[] = $row->cells[1];
        }

        return $cells;
    }
}
