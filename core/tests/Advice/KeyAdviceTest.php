<?php

declare(strict_types=1);

namespace NineTally\Tests\Advice;

use NineTally\Core\Advice\KeyUniqueness;
use NineTally\Core\Advice\PlanProposal;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\Row;
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
        self::assertTrue(KeyUniqueness::count($this->reader($content), ['berth'], 3)->isWhole, 'A sample as large as the delivery is the delivery.');
    }

    public function test_an_unknown_column_is_named(): void
    {
        $this->expectException(UnknownColumn::class);
        KeyUniqueness::count($this->reader("basin,berth\nKB,1\n"), ['bassin']);
    }

    /**
     * @param  list<list<string>>  $rows
     * @param  list<string>  $targetNames
     * @param  list<string>  $key
     */
    #[DataProvider('proposals')]
    public function test_proposes_the_shortest_leading_columns_that_tell_rows_apart(array $rows, array $targetNames, array $key): void
    {
        $sample = array_map(static fn(array $cells, int $number): Row => new Row($number + 2, $cells), $rows, array_keys($rows));

        self::assertSame($key, (new PlanProposal)->key(Columns::named('old.csv', ['basin', 'berth', 'season']), Columns::named('new.csv', $targetNames), $sample));
    }

    /** @return iterable<string, array{list<list<string>>, list<string>, list<string>}> */
    public static function proposals(): iterable
    {
        $all = ['basin', 'berth', 'season'];
        yield 'the first column alone' => [[['1', 'x', 'y'], ['2', 'x', 'y']], $all, ['basin']];
        yield 'two columns' => [[['KB', '1', 'y'], ['KB', '2', 'y'], ['LM', '1', 'y']], $all, ['basin', 'berth']];
        yield 'columns that the target has too' => [[['KB', '1', 'a'], ['KB', '1', 'b']], ['basin', 'season'], ['basin', 'season']];
        yield 'none tells them apart' => [[['KB', '1', 'a'], ['KB', '1', 'a']], $all, []];
        yield 'no rows, no guess' => [[], $all, []];
        yield 'nothing in common' => [[['KB', '1', 'a']], ['quay'], []];
    }
}
