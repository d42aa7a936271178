<?php

declare(strict_types=1);

namespace NineTally\Tests\Properties;

use NineTally\Core\Comparison\CellFinding;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Repeats\PolicyId;
use NineTally\Core\Repeats\RepeatsPolicy;
use NineTally\Core\Report\CsvLine;
use NineTally\Core\Tally\TallySettings;
use NineTally\Tests\Tally\Tallied;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;

/** Laws that hold for any data: hundreds of small registers, drawn with a fixed seed so that a failure comes again. */
final class RandomDataTest extends TestCase
{
    use Tallied;

    private const ROUNDS = 80;

    private const NAMES = ['basin', 'berth', 'holder', 'fee'];

    private const KEY_CELLS = ['', '1', '2', '12', '23', '3', 'KB', 'kb', ' KB', 'a,b', "line\nend", '"', '01'];

    private const VALUES = [
        '',
        ' ',
        'Ann',
        'ANN',
        ' Ann',
        'Ann Lee',
        "Ann\u{A0}Lee",
        'Ann  Lee', '10', '10.0', '10.00 ', '-0', '0', '007', '7', 'Thornøy', 'THORNØY', 'x"y',
        "a\r\nb",
        'N/A',
        "\u{200B}",
    ];

    private Randomizer $random;

    protected function setUp(): void
    {
        $this->random = new Randomizer(new Mt19937(20261125));
    }

    public function test_finds_what_a_second_opinion_finds(): void
    {
        for ($round = 0; $round < self::ROUNDS; $round++) {
            $source = $this->rows();
            $target = $this->random->shuffleArray([...$this->disturbed($source), ...$this->rows(3)]);
            $plan = $this->plan($round);
            $oracle = new Oracle($plan, self::NAMES, $source, self::NAMES, $target);

            $this->tallyOf(
                $plan,
                $this->reader($this->csv($source), 'old.csv'),
                $this->reader($this->csv($target), 'new.csv'),
                settings: new TallySettings(partitions: 2 ** ($round % 4)),
            );

            self::assertSame($oracle->findings(), array_map($this->line(...), $this->found), "round {$round}");
        }
    }

    public function test_a_delivery_agrees_with_itself_but_for_rows_that_repeat_or_have_no_key(): void
    {
        for ($round = 0; $round < self::ROUNDS; $round++) {
            $rows = $this->csv($this->rows());
            $summary = $this->tally($rows, $rows);

            self::assertSame([0, 0, 0], [$summary->source->changed, $summary->source->unmatched, $summary->target->unmatched]);
            self::assertSame($summary->source->prepared, $summary->source->agreed + $summary->source->repeated + $summary->source->unkeyed);
        }
    }

    public function test_the_mirror_swaps_missing_and_extra_blanked_and_filled(): void
    {
        for ($round = 0; $round < self::ROUNDS; $round++) {
            $source = $this->rows();
            $target = $this->disturbed($source);
            $one = $this->tally($this->csv($source), $this->csv($target));
            $other = $this->tally($this->csv($target), $this->csv($source));

            self::assertSame([$one->source->unmatched, $one->target->unmatched], [$other->target->unmatched, $other->source->unmatched]);
            self::assertSame(
                [$one->cells()['blanked'], $one->cells()['filled'], $one->cells()['changed']],
                [$other->cells()['filled'], $other->cells()['blanked'], $other->cells()['changed']],
            );
        }
    }

    public function test_the_row_order_of_the_target_changes_nothing_but_lines(): void
    {
        for ($round = 0; $round < self::ROUNDS; $round++) {
            $source = $this->rows();
            $target = $this->disturbed($source);
            $this->tally($this->csv($source), $this->csv($target));
            $one = array_map($this->line(...), $this->found);
            $this->tally($this->csv($source), $this->csv($this->random->shuffleArray($target)));
            $other = array_map($this->line(...), $this->found);
            sort($one);
            sort($other);

            self::assertSame($one, $other);
        }
    }

    /**
     * Keys of one column and of two, with and without what they forgive; pairs that forgive nothing, spacing, or more; each policy for
     * repeats.
     */
    private function plan(int $round): Plan
    {
        $key = array_map(
            static fn(string $name): KeyColumn => new KeyColumn(
                $name,
                $name,
                [[], ['spacing', 'case'], ['leading-zeros']][intdiv($round, 2) % 3],
            ),
            $round % 2 === 0 ? ['basin', 'berth'] : ['berth'],
        );
        $policies = [PolicyId::SetAside, PolicyId::KeepFirst, PolicyId::KeepLast, PolicyId::CollapseCopies];
        [$source, $target] =
            $round % 7 === 0 ? [PolicyId::PairInOrder, PolicyId::PairInOrder] : [$policies[$round % 4], $policies[intdiv($round, 4) % 4]];
        $forgives = [[], ['spacing'], ['case', 'number-form'], ['leading-zeros']][intdiv($round, 3) % 4];

        return new Plan(
            $key,
            [
                new ColumnPair('pair-000000000000', 'holder', 'holder', forgives: $forgives),
                new ColumnPair('pair-000000000001', 'fee', 'fee'),
            ],
            source: new SideRules(repeats: RepeatsPolicy::of($source)),
            target: new SideRules(repeats: RepeatsPolicy::of($target)),
        );
    }

    /** @return list<list<string>> */
    private function rows(int $most = 14): array
    {
        $rows = [];
        for ($count = $this->random->getInt(0, $most); $count > 0; $count--) {
            $rows[] = [$this->one(self::KEY_CELLS), $this->one(self::KEY_CELLS), $this->one(self::VALUES), $this->one(self::VALUES)];
        }

        return $rows;
    }

    /**
     * @param  list<list<string>>  $rows
     * @return list<list<string>>
     */
    private function disturbed(array $rows): array
    {
        $kept = array_values(array_filter($rows, fn(): bool => $this->random->getInt(0, 5) > 0));

        return array_map(
            fn(array $row): array => [
                $row[0],
                $row[1],
                $this->random->getInt(0, 2) > 0 ? $row[2] : $this->one(self::VALUES),
                $this->random->getInt(0, 2) > 0 ? $row[3] : $this->one(self::VALUES),
            ],
            $kept,
        );
    }

    /** @param non-empty-list<string> $values */
    private function one(array $values): string
    {
        return $values[$this->random->getInt(0, count($values) - 1)];
    }

    /** @param list<list<string>> $rows */
    private function csv(array $rows): string
    {
        return implode('', array_map(CsvLine::of(...), [self::NAMES, ...$rows]));
    }

    private function line(RowFinding $row): string
    {
        return trim(
            implode(' ', [
                $row->class->value,
                $row->side->value ?? 'both',
                implode('|', $row->key->cells ?? []),
                ...array_map(
                    static fn(
                        CellFinding $cell,
                    ): string => "[{$cell->pairPosition} {$cell->class->value} {$cell->cause}: {$cell->source} > {$cell->target}]",
                    $row->cells,
                ),
            ]),
        );
    }
}
