<?php

declare(strict_types=1);

namespace NineTally\Tests\Intake;

use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\Row\Row;
use NineTally\Tests\AwkwardFiles;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Tables as people hand them over are read as what they are, and what is not sure is not guessed. */
final class AwkwardFilesTest extends TestCase
{
    use TemporaryFiles;

    public function test_each_is_read_without_a_correction(): void
    {
        $catalogue = new ReaderCatalogue;
        $wrong = [];
        foreach (AwkwardFiles::in($this->folder()) as $file) {
            $name = basename($file->path);
            $reader = $catalogue->openAs($file->path, $name, $catalogue->find($file->path, $name)->format);
            $rows = [];
            foreach ($reader->records() as $record) {
                $rows[] = $record instanceof Row ? $record->cells : null;
            }
            $wrong[$name] = $file->complaint($reader->columns()->names, $rows);
        }

        self::assertSame([], array_filter($wrong));
        self::assertCount(40, $wrong);
    }

    /** @return iterable<string, array{string, int}> a table, and how many rows it has */
    public static function thatLookAwkwardAndAreNot(): iterable
    {
        $rows = implode('', array_map(static fn(int $number): string => "B{$number},KB,{$number}0\n", range(1, 30)));
        yield 'a last record that is cut off' => ["berth,basin,fee\n{$rows}B31,K", 31];
        yield 'a last record that is cut off in its first cell' => ["berth,basin,fee\n{$rows}B3\n", 31];
        yield 'a berth that is called Total' => ["berth,basin,fee\n{$rows}Total,KB,7\n", 31];
        yield 'a last row of blanks' => ["berth,basin,fee\n{$rows},,\n", 31];
        yield 'a last row without a key' => ["berth,basin,fee\n{$rows},,4\n", 31];
        yield 'a last row of a key alone' => ["berth,basin,fee\n{$rows}B31,,\n", 31];
        yield 'a cell over several lines at the end' => ["berth,basin,fee\n{$rows}B31,\"a\n\nTotal\",7\n", 31];
        yield 'a first row with a name that lacks' => ["berth,,fee\n{$rows}", 30];
        yield 'names with figures' => ["B1 berth,basin 2024,fee 2024\n{$rows}", 30];
        yield 'a time in every row' => ["berth,at,fee\n".preg_replace('/,KB,/', ',10:30:00,', $rows), 30];
    }

    #[DataProvider('thatLookAwkwardAndAreNot')]
    public function test_no_row_of_a_table_is_taken_for_something_else(string $text, int $records): void
    {
        $path = $this->file($text, 'berths.csv');
        $catalogue = new ReaderCatalogue;
        $reader = $catalogue->openAs($path, 'berths.csv', $catalogue->find($path, 'berths.csv')->format);

        self::assertSame($records, iterator_count($reader->records()));
        self::assertCount(3, $reader->columns()->names);
    }
}
