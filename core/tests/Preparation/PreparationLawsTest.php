<?php

declare(strict_types=1);

namespace NineTally\Tests\Preparation;

use NineTally\Core\Preparation\Grouping;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;

/** Laws that hold whatever the rows are: on random data with a fixed seed. */
final class PreparationLawsTest extends TestCase
{
    use Prepared;

    private const CELLS = ['', ' ', 'KB', 'kb', '1', '01', '1.0', '-2', "a\nb", 'é', '2027-01-01', '"', '0'];

    public function test_fold_then_spread_gives_the_table_back(): void
    {
        for ($seed = 1; $seed <= 30; $seed++) {
            $rows = $this->rows($seed, 4);
            foreach ($rows as $nth => $cells) {
                $rows[$nth] = [(string) $nth, ...$cells];
            }
            $columns = ['id', 'a', 'b', 'c', 'd'];
            $back = $this->preparationOf(
                ['kind' => 'columns-into-rows', 'columns' => ['b', 'd'], 'namesInto' => 'n', 'valuesInto' => 'v'],
                ['kind' => 'rows-into-columns', 'namesFrom' => 'n', 'valuesFrom' => 'v', 'into' => ['b', 'd']],
                ['kind' => 'keep-columns', 'columns' => $columns],
            );

            self::assertSame([$columns, ...$rows], $this->prepared($back, $columns, $rows), "seed {$seed}");
        }
    }

    /** Random steps in random order: the ledger of each holds (Prepared looks), and one that is off might as well not be there. */
    public function test_the_ledger_holds_and_a_step_switched_off_was_never_there(): void
    {
        $steps = [
            ['kind' => 'leave-out-blank-rows'],
            ['kind' => 'tidy-text', 'columns' => ['a', 'c'], 'actions' => [['action' => 'trim'], ['action' => 'lower']]],
            ['kind' => 'fill-blanks', 'columns' => ['b']],
            ['kind' => 'keep-rows', 'condition' => ['column' => 'a', 'test' => 'is-not', 'value' => 'kb']],
            ['kind' => 'read-number', 'columns' => ['b', 'c']],
            ['kind' => 'compute-column', 'into' => 'c', 'formula' => 'b * 2'],
            ['kind' => 'keep-one-row', 'by' => ['a'], 'order' => ['column' => 'b', 'kind' => 'number']],
            ['kind' => 'survivors', 'column' => 'a', 'entries' => [['source' => 'kb', 'target' => 'KB']]],
            ['kind' => 'columns-into-rows', 'columns' => ['d'], 'namesInto' => 'e', 'valuesInto' => 'd', 'keepBlanks' => false],
            ['kind' => 'rows-into-columns', 'namesFrom' => 'a', 'valuesFrom' => 'c', 'into' => ['KB', '1', 'x']],
            ['kind' => 'group-rows', 'by' => ['a', 'b', 'c', 'd'], 'totals' => [['total' => 'count', 'into' => 'n']]],
        ];
        for ($seed = 1; $seed <= 40; $seed++) {
            $random = new Randomizer(new Mt19937($seed));
            $chosen = array_slice($random->shuffleArray($steps), 0, 4);
            $rows = $this->rows($seed, 4);
            $off = [...$chosen[0], 'off' => true];
            try {
                $without = $this->prepared($this->preparationOf(...array_slice($chosen, 1)), ['a', 'b', 'c', 'd'], $rows);
            } catch (\NineTally\Core\Preparation\UnusableStep) {
                continue;
            }
            self::assertSame(
                $without,
                $this->prepared($this->preparationOf($off, ...array_slice($chosen, 1)), ['a', 'b', 'c', 'd'], $rows),
                "seed {$seed}",
            );
        }
    }

    public function test_groups_that_are_written_aside_come_out_as_those_that_are_held(): void
    {
        $rows = static function (): \Generator {
            for ($row = 0; $row < 60_000; $row++) {
                yield $row => ['group '.$row * 7_919 % 20_011, str_repeat('x', 300), (string) $row];
            }
        };
        $made = [];
        // Both rows of a group go back to the place of the later one.
        foreach (
            (new Grouping($this->folder('groups')))->run(
                $rows(),
                [0],
                static fn(array $group): array => [[$group[count($group) - 1][0], $group[0][1], [$group[0][2][0], (string) count($group)]]],
            )
            as $packedPlace => $cells
        ) {
            $made[] = [$packedPlace, ...$cells];
        }
        $expected = $last = [];
        foreach ($rows() as $row => [$group]) {
            $expected[$group] = [$expected[$group][0] ?? $row, $group, (string) (($expected[$group][2] ?? 0) + 1)];
            $last[$group] = $row;
        }
        asort($last);

        self::assertSame(array_map(static fn(string $group): array => $expected[$group], array_keys($last)), $made);
        self::assertSame([], glob($this->folder('groups').'/*'), 'What was written aside is gone.');
    }

    /** @return list<list<string>> */
    private function rows(int $seed, int $columns): array
    {
        $random = new Randomizer(new Mt19937($seed));
        $rows = [];
        for ($row = $random->getInt(0, 25); $row > 0; $row--) {
            $rows[] = array_map(static fn(): string => self::CELLS[$random->getInt(0, count(self::CELLS) - 1)], range(1, $columns));
        }

        return $rows;
    }
}
