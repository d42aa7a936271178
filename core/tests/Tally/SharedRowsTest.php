<?php

declare(strict_types=1);

namespace NineTally\Tests\Tally;

use NineTally\Core\Landing\SharedDelivery;
use NineTally\Core\Landing\SharedRows;
use NineTally\Core\Preparation\NoReferences;
use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Preparation\Preparation;
use NineTally\Core\Preparation\PreparedReader;
use NineTally\Core\Preparation\PreparedSide;
use NineTally\Core\Preparation\StepCatalogue;
use PHPUnit\Framework\TestCase;

/**
 * Rows of a delivery that several datasets use: which of them no dataset takes, and which several do.
 *
 * @phpstan-import-type StepDocument from StepCatalogue
 */
final class SharedRowsTest extends TestCase
{
    use Tallied;

    private const ROWS = "kind,no,may,june\nberth,1,,\nberth,2,3,\nlicence,7,,\ngate,9,,\nberth,2,3,\n";

    public function test_of_the_same_bytes_a_row_is_known_by_its_line(): void
    {
        $shared = SharedRows::of(
            [$this->only('Berths', 'berth'), $this->only('Licences', 'licence')],
            true,
            $this->folder('a').'/s',
            static fn() => null,
        );

        self::assertSame([5, 1, 4, 0], [$shared['rows'], $shared['none'], $shared['one'], $shared['several']]);
        self::assertSame([[
            'part' => 1, 'line' => 5, 'text' => 'gate | 9 |  | ', 'in' => [],
            'leftOutBy' => [['dataset' => 'Berths', 'step' => 1], ['dataset' => 'Licences', 'step' => 1]],
        ]], $shared['told']['none']);
    }

    public function test_of_different_deliveries_a_row_is_known_by_its_cells(): void
    {
        $later = str_replace("gate,9,,\n", "licence,8,,\n", self::ROWS);
        $shared = SharedRows::of(
            [$this->only('Berths', 'berth'), $this->only('All', null, $later)],
            false,
            $this->folder('b').'/s',
            static fn() => null,
        );

        // The berth that stands there twice is one row, and both datasets take it.
        self::assertSame([5, 1, 2, 2], [$shared['rows'], $shared['none'], $shared['one'], $shared['several']]);
        self::assertSame(['gate | 9 |  | '], array_column($shared['told']['none'], 'text'));
        self::assertSame([['Berths', 'All'], ['Berths', 'All']], array_column($shared['told']['several'], 'in'));
    }

    /** A row that became several has landed as long as one of them is left. */
    public function test_a_row_of_which_something_is_left_has_landed(): void
    {
        $months = $this->delivery('Months', [
            ['id' => 'a', 'kind' => 'columns-into-rows', 'columns' => ['may', 'june'], 'namesInto' => 'month', 'valuesInto' => 'boats'],
            ['id' => 'b', 'kind' => 'leave-out-rows', 'condition' => ['column' => 'boats', 'test' => 'is-blank']],
        ]);
        $shared = SharedRows::of([$months], true, $this->folder('c').'/s', static fn() => null);

        self::assertSame([3, 2], [$shared['none'], $shared['one']]);
        self::assertSame([2, 4, 5], array_column($shared['told']['none'], 'line'));
    }

    private function only(string $name, ?string $kind, string $rows = self::ROWS): SharedDelivery
    {
        return $this->delivery($name, $kind === null ? [] : [
            ['id' => 'only', 'kind' => 'keep-rows', 'condition' => ['column' => 'kind', 'test' => 'is', 'value' => $kind]],
        ], $rows);
    }

    /** @param list<StepDocument> $steps */
    private function delivery(string $name, array $steps, string $rows = self::ROWS): SharedDelivery
    {
        $stack = new PartStack([['reader' => $this->reader($rows, "{$name}.csv"), 'label' => '']]);
        $side = PreparedSide::in($this->folder("prepared-{$name}"));
        $side->make($stack, new Preparation($steps), 'source', static fn(int $bytes, int $records) => null, new NoReferences);

        return new SharedDelivery($name, $stack, new PreparedReader($side, $name));
    }
}
