<?php

declare(strict_types=1);

namespace NineTally\Tests\Preparation;

use NineTally\Core\Preparation\References;
use NineTally\Core\Preparation\ReferenceTable;
use NineTally\Core\Preparation\Steps\Survivors;
use NineTally\Core\Preparation\UnusableStep;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;

/** Rows that the migration put together: what the survivor holds, and that no row is lost on the way. */
final class SurvivorsTest extends TestCase
{
    use Prepared;

    private const COLUMNS = ['holder', 'name', 'boats', 'since'];

    private const STEP = [
        'kind' => 'survivors',
        'column' => 'holder',
        'entries' => [['source' => '7', 'target' => '3'], ['source' => '3', 'target' => '1'], ['source' => '8', 'target' => '99']],
        'holds' => [['column' => 'name', 'total' => 'longest'], ['column' => 'boats', 'total' => 'sum']],
    ];

    private const ROWS = [
        ['7', 'A. Maddox', '2', '2020-01-05'],
        ['1', 'Maddox', '1', '2021-02-03'],
        ['8', 'Orla Finch', '', '2019-04-04'],
        ['2', 'Bram Quill', '5', ''],
        ['3', 'Anders Maddox', '4', ''],
        ['2', 'Bram Quill', '5', ''],
    ];

    public function test_rows_go_into_their_survivor_by_the_end_of_the_way(): void
    {
        self::assertSame(
            [
                self::COLUMNS,
                ['1', 'Anders Maddox', '7', '2021-02-03'],
                // Without a row of its own, the first that went into it stands for it.
                ['99', 'Orla Finch', '', '2019-04-04'],
                // Nobody said that these are one.
                ['2', 'Bram Quill', '5', ''],
                ['2', 'Bram Quill', '5', ''],
            ],
            $this->prepared($this->preparationOf(self::STEP), self::COLUMNS, self::ROWS),
        );
        self::assertSame(2, $this->figures[1]->condensed);
        self::assertSame(
            [Survivors::NOT_HELD => ['since: 2020-01-05' => 1], Survivors::WITHOUT_OWN_ROW => ['99' => 1]],
            $this->figures[1]->values,
        );
    }

    public function test_a_reference_says_it_too_by_a_key_of_several_columns_and_what_it_forgives(): void
    {
        $map = new class () implements References {
            public function ledgers(): array
            {
                return [];
            }

            public function named(string $name): ReferenceTable
            {
                return new ReferenceTable($name, ['basin', 'old', 'now in', 'new'], [['KB', '0014', 'LM', '2'], ['LM', '3', '', '']]);
            }
        };
        $step = [
            'kind' => 'survivors',
            'reference' => 'Merged berths',
            'on' => [['column' => 'basin', 'reference' => 'basin'], ['column' => 'berth', 'reference' => 'old']],
            'take' => [['reference' => 'new', 'into' => 'berth'], ['reference' => 'now in', 'into' => 'basin']],
            'forgives' => ['leading-zeros'],
        ];

        self::assertSame(
            [['basin', 'berth'], ['LM', '002'], ['LM', '3']],
            $this->prepared($this->preparationOf($step), ['basin', 'berth'], [['KB', '14'], ['LM', '002'], ['LM', '3']], $map),
        );
    }

    /**
     * @param  array<string, mixed>  $change
     */
    #[DataProvider('refused')]
    public function test_a_map_that_cannot_be_followed_is_refused_with_its_names(array $change, string $message): void
    {
        $this->expectException(UnusableStep::class);
        $this->expectExceptionMessage($message);

        $this->prepared($this->preparationOf([...self::STEP, ...$change]), self::COLUMNS, self::ROWS);
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function refused(): iterable
    {
        $entry = static fn(string $source, string $target): array => ['source' => $source, 'target' => $target];
        yield 'two survivors' => [
            ['entries' => [$entry('7', '3'), $entry('07', '1')], 'forgives' => ['leading-zeros']],
            '"07" has two survivors: "3" (entry 1) and "1" (entry 2).',
        ];
        yield 'a circle' => [
            ['entries' => [$entry('7', '3'), $entry('3', '1'), $entry('1', '7')]],
            'The map of survivors goes in a circle: "3" into "1" into "7".',
        ];
        yield 'a column of the key' => [['holds' => [['column' => 'holder', 'total' => 'first']]], '"holder" is of the key'];
    }

    /** Rows in = rows out + condensed (Prepared looks), sums stay, and rows outside of the map come out as they went in. */
    public function test_no_row_and_no_sum_is_lost(): void
    {
        for ($seed = 1; $seed <= 40; $seed++) {
            $random = new Randomizer(new Mt19937($seed));
            $entries = [];
            for ($key = 1; $key <= 12; $key++) {
                // Downwards alone, so that there is no circle.
                if ($random->getInt(0, 1) === 1) {
                    $entries[] = ['source' => (string) $key, 'target' => (string) $random->getInt(0, $key - 1)];
                }
            }
            $rows = [];
            for ($row = $random->getInt(0, 30); $row > 0; $row--) {
                $rows[] = [(string) $random->getInt(0, 14), (string) $random->getInt(0, 9)];
            }
            $step = ['kind' => 'survivors', 'column' => 'k', 'entries' => $entries, 'holds' => [['column' => 'n', 'total' => 'sum']]];
            $made = array_slice($this->prepared($this->preparationOf($step), ['k', 'n'], $rows), 1);

            self::assertSame(self::sum($rows), self::sum($made), "seed {$seed}");
            self::assertSame([], array_intersect(array_column($made, 0), array_column($entries, 'source')), "seed {$seed}");
            $outside = static fn(array $row): bool => $row[0] > 12;
            self::assertSame(array_values(array_filter($rows, $outside)), array_values(array_filter($made, $outside)), "seed {$seed}");
        }
    }

    /** @param list<list<string>> $rows */
    private static function sum(array $rows): int
    {
        return array_sum(array_map(intval(...), array_column($rows, 1)));
    }
}
