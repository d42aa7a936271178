<?php

declare(strict_types=1);

namespace NineTally\Tests\Cause;

use NineTally\Core\Comparison\CellFinding;
use NineTally\Core\Report\CsvLine;
use NineTally\Tests\Tally\Tallied;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Causes that only a whole column can show, through the engine and whatever the number of partitions. */
final class WholeColumnTest extends TestCase
{
    use Tallied;

    /**
     * @param  list<array{string, string}>  $values
     * @param  list<string>  $causes
     */
    #[DataProvider('columns')]
    public function test_decides_when_all_cells_are_known(array $values, array $causes): void
    {
        foreach ([1, 8] as $partitions) {
            $this->tally($this->register(array_column($values, 0)), $this->register(array_column($values, 1)), ['berth'], partitions: $partitions);
            $found = [];
            foreach ($this->found as $row) {
                $found[(int) ($row->key->cells[0] ?? 0)] = trim($row->cells[0]->cause.' '.json_encode($row->cells[0]->facts, JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES));
            }
            ksort($found);

            self::assertSame($causes, array_values($found));
        }
    }

    /** @return iterable<string, array{list<array{string, string}>, list<string>}> */
    public static function columns(): iterable
    {
        $cut = [['Ezekiel Thornøy and partners', 'Ezekiel Thornøy and p'], ['Ottoline Quillfeather of the Quay', 'Ottoline Quillfeather'], ['Hester Fenwright, Wherrymoor', 'Hester Fenwright, Whe']];
        yield 'cut at one length in characters' => [$cut, array_fill(0, 3, 'truncated {"characters":21}')];
        yield 'two findings show nothing' => [array_slice($cut, 0, 2), ['none []', 'none []']];
        yield 'the space at the cut was lost afterwards' => [[...$cut, ['Wanda Saltmarsh lives aboard', 'Wanda Saltmarsh lives'], ['Ilse Moor keeps goats or ducks', 'Ilse Moor keeps goats']], array_fill(0, 5, 'truncated {"characters":21}')];
        yield 'cut in capitals' => [array_map(static fn(array $pair): array => [$pair[0], mb_strtoupper($pair[1])], $cut), array_fill(0, 3, 'truncated {"characters":21,"forms":"case"}')];
        yield 'cut at one length in bytes' => [[['Thornøy1 abc', 'Thornøy1'], ['Thornoy12 abc', 'Thornoy12'], ['Ørnøyen abcd', 'Ørnøyen']], array_fill(0, 3, 'truncated {"bytes":9}')];
        yield 'another length falls to the next cause' => [[...$cut, ['Wanda Saltmarsh', 'Wanda']], [...array_fill(0, 3, 'truncated {"characters":21}'), 'none []']];

        yield 'one day earlier' => [[['2027-01-14', '2027-01-13'], ['2027-03-01', '2027-02-28'], ['2028-03-01', '2028-02-29']], array_fill(0, 3, 'date-shift {"days":-1}')];
        yield 'another offset among them' => [[['2027-01-14', '2027-01-13'], ['2027-03-01', '2027-02-28'], ['2028-03-01', '2028-02-29'], ['2027-05-20', '2027-05-24']], [...array_fill(0, 3, 'date-shift {"days":-1}'), 'none []']];
        yield 'two offsets that follow the clocks of a zone' => [
            [['2027-01-14 10:00', '2027-01-14 11:00'], ['2027-07-14 10:00', '2027-07-14 12:00'], ['2027-08-14 10:00', '2027-08-14 12:00'], ['2027-11-14 10:00', '2027-11-14 11:00']],
            array_fill(0, 4, 'date-shift {"seconds":3600,"clock_change":3600,"zone":"Europe/London"}'),
        ];
        yield 'two offsets that follow nothing' => [
            [['2027-07-14 10:00', '2027-07-14 11:00'], ['2027-07-15 10:00', '2027-07-15 12:00'], ['2027-07-16 10:00', '2027-07-16 12:00'], ['2027-07-17 10:00', '2027-07-17 12:00']],
            ['none []', ...array_fill(0, 3, 'date-shift {"seconds":7200}')],
        ];

        $codes = [...array_fill(0, 3, ['A', 'Active']), ...array_fill(0, 3, ['S', 'Suspended'])];
        yield 'codes became words' => [$codes, array_fill(0, 6, 'translated []')];
        yield 'one code is no code table' => [array_slice($codes, 0, 3), array_fill(0, 3, 'none []')];
        yield 'twice is not three times' => [[...array_slice($codes, 0, 3), ...array_slice($codes, 3, 2)], array_fill(0, 5, 'none []')];
        yield 'a code with two meanings follows nothing' => [[...$codes, ...array_fill(0, 3, ['V', 'Vacant']), ['S', 'Vacant']], [...array_fill(0, 3, 'translated []'), ...array_fill(0, 3, 'none []'), ...array_fill(0, 3, 'translated []'), 'none []']];
        yield 'names misspelt alike in a column of other faults' => [[['Periwinkle', 'Perriwinkle'], ['Periwinkle', 'Perriwinkle'], ['Periwinkle', 'Perriwinkle'], ['Kingfisher', 'Kingfihser'], ['Kingfisher', 'Kingfihser'], ['Kingfisher', 'Kingfihser'], ['1', '2'], ['3', '5'], ['6', '8'], ['11', '17'], ['13', '18'], ['14', '19']], [...array_fill(0, 3, 'near-text {"edits":1,"from":"","to":"r"}'), ...array_fill(0, 3, 'near-text {"edits":1,"from":"sh","to":"hs"}'), ...array_fill(0, 6, 'none []')]];
    }

    public function test_a_value_that_stands_in_another_column_moved(): void
    {
        $source = "berth,holder,tenant\n1,Ezekiel,\n2,Hester,\n3,Wanda,\n4,Ilse,\n5,Ann,\n6,Tomasz,\n";
        $target = "berth,holder,tenant\n1,,Ezekiel\n2,,Hester\n3,,Wanda\n4,,Ilse\n5,,Ann\n6,,Brid\n";
        $summary = $this->tally($source, $target, ['berth']);

        self::assertSame(
            [...array_fill(0, 4, ['changed moved', 'changed moved']), ['blanked blanked', 'filled filled'], ['blanked blanked', 'filled filled']],
            array_map(static fn($row): array => array_map(static fn(CellFinding $cell): string => "{$cell->class->value} {$cell->cause}", $row->cells), $this->found),
        );
        self::assertSame(['changed' => 8, 'blanked' => 2, 'filled' => 2], array_intersect_key($summary->cells(), ['changed' => 1, 'blanked' => 1, 'filled' => 1]));
        self::assertSame(['from' => 'holder', 'to' => 'tenant'], $summary->patterns[0]->facts);
    }

    /** @param list<string> $values */
    private function register(array $values): string
    {
        return "berth,holder\n".implode('', array_map(static fn(string $value, int $row): string => CsvLine::of([(string) ($row + 1), $value]), $values, array_keys($values)));
    }
}
