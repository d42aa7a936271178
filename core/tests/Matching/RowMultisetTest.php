<?php

declare(strict_types=1);

namespace NineTally\Tests\Matching;

use NineTally\Core\Matching\RowSets\RowMultiset;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;

final class RowMultisetTest extends TestCase
{
    use TemporaryFiles;

    public function test_rows_are_counted_as_often_as_they_stand_in_any_order(): void
    {
        $before = $this->rows([['KB', '1'], ['KB', '1'], ['KB', '2'], ['LM', '3']]);
        $after = $this->rows([['LM', '3'], ['KB', '1'], ['LM', '3'], ['NQ', '9']]);

        self::assertSame(['same' => 2, 'changed' => 0, 'gone' => 2, 'new' => 2], $before->changesTo($after)->toArray());
        self::assertTrue($before->changesTo($after)->overlapByHalf());
        self::assertFalse($this->rows([['KB', '1'], ['LM', '2'], ['NQ', '3']])->changesTo($after)->overlapByHalf());
        self::assertFalse($this->rows([])->changesTo($after)->overlapByHalf());
    }

    public function test_cells_are_never_joined_into_another_row(): void
    {
        self::assertSame(0, $this->rows([['1', '23']])->changesTo($this->rows([['12', '3']]))->same);
    }

    public function test_by_key_a_row_that_has_changed_is_neither_gone_nor_new(): void
    {
        $before = $this->rows([['1', 'a'], ['1', 'b'], ['2', 'c'], ['3', 'd']], [0]);
        $after = $this->rows([['1', 'b'], ['1', 'x'], ['2', 'y'], ['2', 'z'], ['4', 'd']], [0]);

        self::assertSame(['same' => 1, 'changed' => 2, 'gone' => 1, 'new' => 2], $before->changesTo($after)->toArray());
    }

    public function test_many_rows_are_put_aside_and_counted_alike(): void
    {
        $random = new Randomizer(new Mt19937(4));
        [$before, $after] = [new RowMultiset($this->folder('before')), new RowMultiset($this->folder('after'))];
        $counts = [];
        for ($row = 0; $row < 200_000; $row++) {
            [$old, $new] = [(string) $random->getInt(1, 90_000), (string) $random->getInt(1, 90_000)];
            $before->add([$old, 'x']);
            $after->add([$new, 'x']);
            $counts[$old][0] = ($counts[$old][0] ?? 0) + 1;
            $counts[$new][1] = ($counts[$new][1] ?? 0) + 1;
        }
        $same = array_sum(array_map(static fn(array $times): int => min($times[0] ?? 0, $times[1] ?? 0), $counts));

        self::assertNotSame([], glob($this->folder('before').'/*'));
        self::assertSame(
            ['same' => $same, 'changed' => 0, 'gone' => 200_000 - $same, 'new' => 200_000 - $same],
            $before->changesTo($after)->toArray(),
        );
        $before->remove();
        self::assertSame([], glob($this->folder('before').'/*'));
    }

    /**
     * @param  list<list<string>>  $rows
     * @param  list<int>|null  $key
     */
    private function rows(array $rows, ?array $key = null): RowMultiset
    {
        $multiset = new RowMultiset($this->folder());
        foreach ($rows as $cells) {
            $multiset->add($cells, $key);
        }

        return $multiset;
    }
}
