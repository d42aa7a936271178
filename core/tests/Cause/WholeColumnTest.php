<?php

declare(strict_types=1);

namespace NineTally\Tests\Cause;

use NineTally\Core\Comparison\Pattern;
use NineTally\Core\Report\CsvLine;
use NineTally\Tests\Tally\Tallied;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Causes that only a whole column can show, through the engine and whatever the number of partitions. */
final class WholeColumnTest extends TestCase
{
    use Tallied;

    /** @return iterable<string, array{list<array{string, string}>, list<string>}> */
    public static function columns(): iterable
    {
        $cut = [
            ['Ezekiel Thornøy and partners', 'Ezekiel Thornøy and p'],
            ['Ottoline Quillfeather of the Quay', 'Ottoline Quillfeather'],
            ['Hester Fenwright, Wherrymoor', 'Hester Fenwright, Whe'],
        ];
        yield 'cut at one length in characters' => [$cut, array_fill(0, 3, 'truncated {"characters":21}')];
        yield 'two findings show nothing' => [array_slice($cut, 0, 2), ['none []', 'none []']];
        yield 'the space at the cut was lost afterwards' => [
            [
                ...$cut,
                ['Wanda Saltmarsh lives aboard', 'Wanda Saltmarsh lives'],
                ['Ilse Moor keeps goats or ducks', 'Ilse Moor keeps goats'],
            ],
            array_fill(0, 5, 'truncated {"characters":21}'),
        ];
        yield 'cut in capitals' => [
            array_map(static fn(array $pair): array => [$pair[0], mb_strtoupper($pair[1])], $cut),
            array_fill(0, 3, 'truncated {"characters":21,"forms":"case"}'),
        ];
        yield 'cut at one length in bytes' => [
            [['Thornøy1 abc', 'Thornøy1'], ['Thornoy12 abc', 'Thornoy12'], ['Ørnøyen abcd', 'Ørnøyen']],
            array_fill(0, 3, 'truncated {"bytes":9}'),
        ];
        yield 'another length falls to the next cause' => [
            [...$cut, ['Wanda Saltmarsh', 'Wanda']],
            [...array_fill(0, 3, 'truncated {"characters":21}'), 'none []'],
        ];

        yield 'one day earlier' => [
            [['2027-01-14', '2027-01-13'], ['2027-03-01', '2027-02-28'], ['2028-03-01', '2028-02-29']],
            array_fill(0, 3, 'date-shift {"days":-1}'),
        ];
        yield 'another offset among them' => [
            [['2027-01-14', '2027-01-13'], ['2027-03-01', '2027-02-28'], ['2028-03-01', '2028-02-29'], ['2027-05-20', '2027-05-24']],
            [...array_fill(0, 3, 'date-shift {"days":-1}'), 'none []'],
        ];
        yield 'two offsets that follow the clocks of a zone' => [
            [
                ['2027-01-14 10:00', '2027-01-14 11:00'],
                ['2027-07-14 10:00', '2027-07-14 12:00'],
                ['2027-08-14 10:00', '2027-08-14 12:00'],
                ['2027-11-14 10:00', '2027-11-14 11:00'],
            ],
            array_fill(0, 4, 'date-shift {"seconds":3600,"clock_change":3600,"zone":"Europe/London"}'),
        ];
        yield 'two offsets that follow nothing' => [
            [
                ['2027-07-14 10:00', '2027-07-14 11:00'],
                ['2027-07-15 10:00', '2027-07-15 12:00'],
                ['2027-07-16 10:00', '2027-07-16 12:00'],
                ['2027-07-17 10:00', '2027-07-17 12:00'],
            ],
            ['none []', ...array_fill(0, 3, 'date-shift {"seconds":7200}')],
        ];

        $higher = [['1200.12', '1201.12'], ['18', '19'], ['0.5', '1.50']];
        yield 'one constant more' => [$higher, array_fill(0, 3, 'offset {"constant":"1"}')];
        yield 'one constant less, and another difference among them' => [
            [['10.10', '9.85'], ['20.40', '20.15'], ['30.5', '30.25'], ['40', '47']],
            [...array_fill(0, 3, 'offset {"constant":"-0.25"}'), 'none []'],
        ];
        yield 'one source value alone shows no constant' => [array_fill(0, 4, ['18', '19']), array_fill(0, 4, 'none []')];
        yield 'few fees that are all higher are no translation' => [
            [...array_fill(0, 4, ['18', '19']), ...array_fill(0, 4, ['31', '32'])],
            array_fill(0, 8, 'offset {"constant":"1"}'),
        ];
        yield 'two that are higher show nothing' => [array_slice($higher, 0, 2), array_fill(0, 2, 'none []')];

        $states = [...array_fill(0, 3, ['active', 'A']), ...array_fill(0, 3, ['lapsed', 'L'])];
        yield 'codes that abbreviate are codes' => [$states, array_fill(0, 6, 'translated []')];
        yield 'also in a column where one is no cut' => [
            [...$states, ...array_fill(0, 3, ['susp', 'X'])],
            array_fill(0, 9, 'translated []'),
        ];
        yield 'and a rare value of that column' => [
            [...$states, ...array_fill(0, 3, ['susp', 'X']), ['retired', 'R']],
            array_fill(0, 10, 'translated []'),
        ];
        yield 'two source values that share a code are cut' => [
            [...$states, ...array_fill(0, 3, ['absent', 'A'])],
            array_fill(0, 9, 'truncated {"characters":1,"forms":"case"}'),
        ];
        yield 'longer cuts are cuts, however often' => [
            [...array_fill(0, 3, ['Periwinkle', 'Periw']), ...array_fill(0, 3, ['Kingfisher', 'Kingf'])],
            array_fill(0, 6, 'truncated {"characters":5}'),
        ];

        yield 'the same time in winter, one hour later in summer' => [
            [
                ['2027-07-14 10:00', '2027-07-14 11:00'],
                ['2027-01-14 10:00', '2027-01-14 10:00'],
                ['2027-08-14 10:00', '2027-08-14 11:00'],
                ['2027-06-14 10:00', '2027-06-14 11:00'],
            ],
            array_fill(0, 3, 'date-shift {"seconds":0,"clock_change":3600,"zone":"Europe/London"}'),
        ];
        yield 'one hour later all the year follows no zone' => [
            [['2027-07-14 10:00', '2027-07-14 11:00'], ['2027-01-14 10:00', '2027-01-14 11:00'], ['2027-08-14 10:00', '2027-08-14 11:00']],
            array_fill(0, 3, 'date-shift {"seconds":3600}'),
        ];

        $codes = [...array_fill(0, 3, ['A', 'Active']), ...array_fill(0, 3, ['S', 'Suspended'])];
        yield 'codes became words' => [$codes, array_fill(0, 6, 'translated []')];
        yield 'one code is no code table' => [array_slice($codes, 0, 3), array_fill(0, 3, 'none []')];
        yield 'twice is not three times' => [[...array_slice($codes, 0, 3), ...array_slice($codes, 3, 2)], array_fill(0, 5, 'none []')];
        yield 'a code with two meanings follows nothing' => [
            [...$codes, ...array_fill(0, 3, ['V', 'Vacant']), ['S', 'Vacant']],
            [...array_fill(0, 3, 'translated []'), ...array_fill(0, 3, 'none []'), ...array_fill(0, 3, 'translated []'), 'none []'],
        ];
        yield 'names misspelt alike in a column of other faults' => [
            [
                ['Periwinkle', 'Perriwinkle'],
                ['Periwinkle', 'Perriwinkle'],
                ['Periwinkle', 'Perriwinkle'],
                ['Kingfisher', 'Kingfihser'],
                ['Kingfisher', 'Kingfihser'],
                ['Kingfisher', 'Kingfihser'],
                ['1', '2'],
                ['3', '5'],
                ['6', '8'],
                ['11', '17'],
                ['13', '18'],
                ['14', '19'],
            ],
            [
                ...array_fill(0, 3, 'near-text {"edit":"added"}'),
                ...array_fill(0, 3, 'near-text {"edit":"swapped"}'),
                ...array_fill(0, 6, 'none []'),
            ],
        ];
    }

    /**
     * @param  list<array{string, string}>  $values
     * @param  list<string>  $causes
     */
    #[DataProvider('columns')]
    public function test_decides_when_all_cells_are_known(array $values, array $causes): void
    {
        foreach ([1, 8] as $partitions) {
            $this->tally(
                $this->register(array_column($values, 0)),
                $this->register(array_column($values, 1)),
                ['berth'],
                partitions: $partitions,
            );
            $found = [];
            foreach ($this->found as $row) {
                $found[(int) ($row->key->cells[0] ?? 0)] = trim(
                    $row->cells[0]->cause.' '.json_encode($row->cells[0]->facts, JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES),
                );
            }
            ksort($found);

            self::assertSame($causes, array_values($found));
        }
    }

    public function test_letters_are_a_breakdown_inside_a_pattern_as_they_were_delivered(): void
    {
        $source = ['Ezekiel Thornoy', 'Hester Fenwright', 'WANDA SALTMARSH', 'Ilse Moor of Lark', 'Quay 7 east', '2024-03-01 10:00:00'];
        $target = ['Ezekiel Thornöy', 'Hester Fenvright', 'Wanda Saltmarch', 'Ilse Moor of Lxrk', 'Quay-7 East.', '2024-03-01T10:00:00Z'];
        $summary = $this->tally($this->register($source), $this->register($target), ['berth']);
        $near = array_values(array_filter($summary->patterns, static fn($pattern): bool => $pattern->cause === 'near-text'));

        self::assertSame(
            [['edit' => 'exchanged'], ['edit' => 'exchanged', 'forms' => 'case'], ['edit' => 'added+exchanged', 'forms' => 'case']],
            array_column($near, 'facts'),
        );
        self::assertSame(
            [['a > x' => 1, 'w > v' => 1], ['S > c' => 1], ['  > - +  > .' => 1]],
            array_map(static fn(Pattern $pattern): array => $pattern->detail->breakdown, $near),
        );
    }

    /** @param list<string> $values */
    private function register(array $values): string
    {
        return "berth,holder\n".
            implode(
                '',
                array_map(
                    static fn(string $value, int $row): string => CsvLine::of([(string) ($row + 1), $value]),
                    $values,
                    array_keys($values),
                ),
            );
    }
}
