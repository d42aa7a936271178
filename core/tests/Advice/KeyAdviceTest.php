<?php

declare(strict_types=1);

namespace NineTally\Tests\Advice;

use NineTally\Core\Advice\KeyAdvice;
use NineTally\Core\Advice\KeyUniqueness;
use NineTally\Core\Row\UnknownColumn;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class KeyAdviceTest extends TestCase
{
    use TemporaryFiles;

    /** @param array{int, int, int, int} $counts rows, with a key of their own, sharing theirs, without one */
    #[DataProvider('registers')]
    public function test_counts_how_well_columns_tell_rows_apart(string $rows, array $counts): void
    {
        $found = KeyUniqueness::count($this->reader("basin,berth\n{$rows}"), ['basin', 'berth']);

        self::assertSame($counts, [$found->rows, $found->uniqueRows, $found->repeatedRows, $found->unkeyedRows]);
        self::assertTrue($found->isWhole);
    }

    /** @return iterable<string, array{string, array{int, int, int, int}}> */
    public static function registers(): iterable
    {
        yield 'each row has its own' => ["KB,1\nKB,2\nLM,1\n", [3, 3, 0, 0]];
        yield 'two share one' => ["KB,1\nKB,1\nLM,1\n", [3, 1, 2, 0]];
        yield 'four share one' => ["KB,1\nKB,1\nKB,1\nKB,1\n", [4, 0, 4, 0]];
        yield 'rows without a key share none' => [",\n,\nKB,1\n", [3, 1, 0, 2]];
        yield 'a partly blank key is a key' => ["KB,\n,1\n", [2, 2, 0, 0]];
        yield 'keys that are joined alike differ' => ["1,23\n12,3\n", [2, 2, 0, 0]];
        yield 'a refused record has no key' => ["KB,1\nKB\n", [1, 1, 0, 0]];
        yield 'no rows' => ['', [0, 0, 0, 0]];
    }

    public function test_a_sample_says_that_it_is_one(): void
    {
        $content = "basin,berth\nKB,1\nKB,2\nKB,3\n";

        self::assertFalse(KeyUniqueness::count($this->reader($content), ['berth'], 2)->isWhole);
        self::assertSame(2, KeyUniqueness::count($this->reader($content), ['berth'], 2)->rows);
        self::assertTrue(
            KeyUniqueness::count($this->reader($content), ['berth'], 3)->isWhole,
            'A sample as large as the delivery is the delivery.',
        );
    }

    public function test_an_unknown_column_is_named(): void
    {
        $this->expectException(UnknownColumn::class);
        KeyUniqueness::count($this->reader("basin,berth\nKB,1\n"), ['bassin']);
    }

    /**
     * @param  list<list<string>>  $rows  of both sides
     * @param  list<string>  $key
     */
    #[DataProvider('tables')]
    public function test_advises_the_fewest_columns_that_tell_rows_apart_and_says_why_fewer_do_not(array $rows, array $key): void
    {
        $names = ['basin', 'berth', 'season', 'band', 'part', 'fee'];
        $advised = (new KeyAdvice)->keys(array_slice($names, 0, count($rows[0] ?? [])), $this->columns($rows));

        self::assertSame($key, array_map(static fn(int $place): string => $names[$place], $advised[0]->places ?? []));
        foreach ($advised[0]->shorter ?? [] as $repeats) {
            self::assertGreaterThan(0.001 * count($rows), $repeats['source']);
        }
    }

    /** @return iterable<string, array{list<list<string>>, list<string>}> */
    public static function tables(): iterable
    {
        yield 'the first column alone' => [[['1', 'x', 'y'], ['2', 'x', 'y']], ['basin']];
        yield 'two columns' => [[['KB', '1', 'y'], ['KB', '2', 'y'], ['LM', '1', 'y']], ['basin', 'berth']];
        yield 'what identifies comes before what is measured' => [
            [['KB', '1', '2.50'], ['KB', '2', '3.50'], ['LM', '1', '4.50']],
            ['basin', 'berth'],
        ];
        yield 'none tells them apart' => [[['KB', '1', 'a'], ['KB', '1', 'a'], ['LM', '1', 'b']], []];
        yield 'no rows, no guess' => [[], []];
        yield 'a column that is blank in many rows is no key' => [
            [['', '1', 'a'], ['', '1', 'b'], ['KB', '2', 'a'], ['LM', '2', 'b']],
            ['berth', 'season'],
        ];
        $five = [];
        for ($row = 0; $row < 243; $row++) {
            // Every combination of five columns with three values each stands once: no four of them tell rows apart.
            $five[] = [
                ...array_map(strval(...), [$row % 3, intdiv($row, 3) % 3, intdiv($row, 9) % 3, intdiv($row, 27) % 3, intdiv($row, 81)]),
                (string) ($row % 7),
            ];
        }
        yield 'five columns and no fewer' => [$five, ['basin', 'berth', 'season', 'band', 'part']];
    }

    public function test_a_register_with_a_few_rows_that_repeat_still_has_its_key(): void
    {
        $rows = array_map(static fn(int $row): array => ['KB', (string) $row, (string) ($row % 9)], range(1, 400));
        $rows[] = $rows[7];
        $advised = (new KeyAdvice)->keys(['basin', 'berth', 'season'], $this->columns($rows));

        self::assertSame([1], $advised[0]->places);
        self::assertSame(['source' => 2, 'target' => 2], $advised[0]->repeats);
        // One column in a hundred rows more: nothing that repeats this often is a key.
        self::assertSame([], (new KeyAdvice)->keys(['basin', 'berth', 'season'], $this->columns([...$rows, ...array_slice($rows, 0, 8)])));
    }

    public function test_wholly_blank_rows_are_against_no_key(): void
    {
        $columns = $this->columns([['kb', '1.50'], ['lm', '1.50'], ['nq', '2.75'], ['', ''], ['', '']]);

        self::assertSame([0], (new KeyAdvice)->keys(['basin', 'fee'], $columns)[0]->places ?? null);
    }

    public function test_both_sides_must_be_told_apart(): void
    {
        $columns = [['source' => ['1', '2', '3'], 'target' => ['1', '1', '1']], ['source' => ['a', 'b', 'b'], 'target' => ['x', 'y', 'z']]];

        self::assertSame([], (new KeyAdvice)->keys(['basin', 'berth'], $columns));
    }

    public function test_sixty_columns_are_searched_in_bounded_memory(): void
    {
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937(5));
        $columns = [];
        for ($column = 0; $column < 60; $column++) {
            $values = [2, 5, 12, 50, 300, 2_000][$column % 6];
            $side = array_map(static fn(): string => (string) $random->getInt(1, $values), range(1, 5_000));
            $columns[] = ['source' => $side, 'target' => $side];
        }
        $columns[31] = ['source' => array_map(strval(...), range(1, 5_000)), 'target' => array_map(strval(...), range(5_000, 1))];
        memory_reset_peak_usage();
        $before = memory_get_usage();
        $keys = (new KeyAdvice)->keys(array_map(static fn(int $nth): string => "column {$nth}", range(0, 59)), $columns);

        self::assertSame([31], $keys[0]->places);
        self::assertLessThan(160 * 1024 * 1024, memory_get_peak_usage() - $before);
    }

    /**
     * @param  list<list<string>>  $rows
     * @return list<array{source: list<string>, target: list<string>}>
     */
    private function columns(array $rows): array
    {
        return array_map(
            static fn(int $place): array => ['source' => array_column($rows, $place), 'target' => array_column($rows, $place)],
            array_keys($rows[0] ?? []),
        );
    }
}
