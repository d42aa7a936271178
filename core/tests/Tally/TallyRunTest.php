<?php

declare(strict_types=1);

namespace NineTally\Tests\Tally;

use NineTally\Core\Comparison\FindingIdentity;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Figures\UnbalancedTally;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\Progress;
use NineTally\Core\Tally\ProgressReport;
use NineTally\Core\Tally\SequentialExecutor;
use NineTally\Core\Tally\TallyCancelled;
use NineTally\Core\Tally\TallyRun;
use NineTally\Core\Tally\TallySettings;
use NineTally\Core\Tally\TallyWork;
use NineTally\Core\Tally\TaskExecutor;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class TallyRunTest extends TestCase
{
    use Tallied;

    private const HEADER = "basin,berth,holder,fee\n";

    public function test_puts_every_row_in_one_class_and_lists_what_does_not_agree_in_source_order(): void
    {
        $summary = $this->tally(
            self::HEADER."KB,1,Ann,10\nKB,2,Bo,20\nKB,3,Cy,\nLM,1,Di,40\nLM,1,Di,40\n,,Eve,50\nshort,record\nNQ,9,Fay,60\n",
            self::HEADER."NQ,8,Gus,70\nKB,3,Cy,30\nKB,2,BO,20\nKB,1,Ann,10\nNQ,8,Gus,71\n,,Hal,80\nOT,1,Ida,90\n",
        );

        self::assertSame(
            [
                'changed both KB,2 3/4 [0 changed case: Bo > BO]',
                'changed both KB,3 4/3 [1 filled filled:  > 30]',
                'repeated source LM,1 5/-', 'repeated source LM,1 6/-', 'unkeyed source , 7/-', 'refused source  -/-',
                'missing source NQ,9 9/-', 'repeated target NQ,8 -/2', 'repeated target NQ,8 -/6', 'unkeyed target , -/7',
                'extra target OT,1 -/8',
            ],
            $this->lines(),
        );
        self::assertSame(
            [
                'read' => 8,
                'refused' => 1,
                'delivered' => 7,
                'left_out' => 0,
                'made' => 0,
                'condensed' => 0,
                'prepared' => 7,
                'unkeyed' => 1,
                'repeated' => 2,
                'agreed' => 1,
                'changed' => 2,
                'missing' => 1,
            ],
            $summary->source->toArray(),
        );
        self::assertSame(
            [
                'read' => 7,
                'refused' => 0,
                'delivered' => 7,
                'left_out' => 0,
                'made' => 0,
                'condensed' => 0,
                'prepared' => 7,
                'unkeyed' => 1,
                'repeated' => 2,
                'agreed' => 1,
                'changed' => 2,
                'extra' => 1,
            ],
            $summary->target->toArray(),
        );
        self::assertSame(
            ['compared' => 6, 'identical' => 4, 'forgiven' => 0, 'changed' => 1, 'blanked' => 0, 'filled' => 1],
            $summary->cells(),
        );
        self::assertFalse($summary->allAgreed());
    }

    public function test_a_key_that_repeats_on_one_side_sets_the_rows_of_both_sides_aside(): void
    {
        $this->tally(self::HEADER."KB,1,Ann,10\nKB,1,Ann,10\n", self::HEADER."KB,1,Ann,10\n");

        self::assertSame(['repeated source KB,1 2/-', 'repeated source KB,1 3/-', 'repeated target KB,1 -/2'], $this->lines());
        self::assertSame(['source' => 2, 'target' => 1], $this->found[0]->rowsOfKey);
        self::assertSame([1, 2, 1], array_map(static fn(RowFinding $row): int => $row->ordinal, $this->found));
    }

    public function test_keys_that_are_joined_alike_are_different_keys(): void
    {
        $summary = $this->tally(self::HEADER."1,23,x,1\n12,3,y,2\n", self::HEADER."12,3,y,2\n1,23,x,1\n");

        self::assertSame(2, $summary->source->agreed);
    }

    public function test_keys_that_look_like_numbers_stay_text(): void
    {
        $summary = $this->tally("no,fee\n1,x\n01,y\n1.0,z\n1e0,w\n", "no,fee\n1e0,w\n1.0,z\n01,y\n1,x\n", ['no']);

        self::assertSame(4, $summary->source->agreed);
    }

    public function test_each_value_is_right_differs_is_lost_or_added_and_cells_blank_on_both_sides_are_apart(): void
    {
        $source = self::HEADER."KB,1,Ann,10\nKB,2,Bo,\nKB,3,,30\nKB,4,,\nKB,5,Cy,50\nKB,6,,60\nLM,1,Di,1\nLM,1,,2\n,,Eve,\n";
        $target = self::HEADER."KB,1,Ann,10\nKB,2,BO,20\nKB,3,,\nKB,4,,\nKB,5,,51\nOT,1,Gus,70\n";
        foreach ([1, 8] as $partitions) {
            $summary = $this->tally($source, $target, partitions: $partitions);
            [$holder, $fee] = array_map(
                static fn(array $column): array => array_diff_key($column['values']->toArray(), ['agreement' => 1]),
                $summary->columns,
            );

            // holder: Ann right; Bo differs; Cy lost, with Di and Eve, whose rows were not compared; Gus added; KB,3 and KB,4 are blank on
            // both sides.
            self::assertSame(['values' => 6, 'right' => 1, 'differing' => 1, 'lost' => 3, 'added' => 1, 'blank_on_both' => 2], $holder);
            // fee: 10 right; 51 differs; 30 lost, with 60, 1 and 2; 20 and 70 added; KB,4 is blank on both sides.
            self::assertSame(['values' => 8, 'right' => 1, 'differing' => 1, 'lost' => 4, 'added' => 2, 'blank_on_both' => 1], $fee);
            self::assertSame(['14.29 %', '28.57 %'], [$summary->values()->agreement()->text(), $summary->values()->ofArrived()->text()]);
        }
    }

    public function test_compares_mapped_columns_in_another_order(): void
    {
        $this->tally(
            "basin,berth,holder\nKB,1,Ann\nKB,2,Bo\n",
            "owner,berth_no,basin\nAnn,1,KB\nBob,2,KB\n",
            map: ['berth' => 'berth_no', 'holder' => 'owner'],
        );

        self::assertSame(['changed both KB,2 3/3 [0 changed none: Bo > Bob]'], $this->lines());
    }

    public function test_a_line_break_in_a_key_that_is_compared_too_is_one_line(): void
    {
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $plan = Plan::fromJson(
            (string) json_encode([
                'formatVersion' => Plan::FORMAT_VERSION,
                'key' => [$same('berth')],
                'columnPairs' => [
                    ['id' => 'pair-000000000001', 'source' => 'berth', 'target' => 'place'],
                    ['id' => 'pair-000000000002', ...$same('fee')],
                ],
            ]),
        );
        $text = static fn(string $fee): string => "berth,place,fee,note\n0,0,5,x\n\"1\nA\",\"1\nA\",5,x\n2,2,{$fee},x\n3,3,5,x\n";
        $this->tallyOf(
            $plan,
            $this->reader($text('6'), 'old.csv'),
            $this->reader($text('7'), 'new.csv'),
            // The range with the header is read record by record, all others block by block.
            settings: new TallySettings(partitions: 2, rangeBytes: 28),
        );

        self::assertSame(['changed both 2 6/6 [1 changed none: 6 > 7]'], $this->lines());
    }

    public function test_patterns_carry_counts_and_the_first_twenty_distinct_value_pairs_in_source_order(): void
    {
        $source = $target = self::HEADER;
        for ($berth = 1; $berth <= 30; $berth++) {
            $source .= "KB,{$berth},Ann {$berth},10\n";
            $target = $target."KB,{$berth},ANN {$berth},1".($berth % 2)."\n";
        }
        $patterns = $this->tally($source, $target)->patterns;

        self::assertSame(
            [[1, 'case', 30, 20], [2, 'none', 15, 1]],
            array_map(
                static fn($pattern): array => [$pattern->number, $pattern->cause, $pattern->cells, count($pattern->examples)],
                $patterns,
            ),
        );
        self::assertSame(['source' => 'Ann 20', 'target' => 'ANN 20'], $patterns[0]->examples[19]);
        self::assertSame([2, 15], [$this->found[28]->cells[1]->place->number, $this->found[28]->cells[1]->place->ordinal]);
    }

    #[DataProvider('partitions')]
    public function test_gives_the_same_findings_for_any_number_of_partitions(int $partitions): void
    {
        $source = $target = self::HEADER;
        for ($row = 0; $row < 400; $row++) {
            $source .= 'B'.($row * 7 % 390).",{$row},h{$row},1\n";
            $target .= 'B'.($row * 11 % 390 * 7 % 390).",{$row},h".($row % 9 === 0 ? 'x' : $row).",1\n";
        }
        $this->tally($source, $target, ['basin'], partitions: 1);
        $expected = serialize($this->found);

        $this->tally($source, $target, ['basin'], partitions: $partitions);

        self::assertSame($expected, serialize($this->found));
    }

    /** @return iterable<string, array{int}> */
    public static function partitions(): iterable
    {
        yield 'two' => [2];
        yield 'seven' => [7];
        yield 'more than there are keys' => [256];
    }

    public function test_a_finding_is_known_again_by_dataset_key_pair_and_ordinal(): void
    {
        $this->tally(self::HEADER."KB,1,Ann,10\nLM,1,Bo,20\nLM,1,Bo,20\n,,x,1\n,,x,1\n", self::HEADER."NQ,1,y,2\nKB,1,ANN,11\n");
        $pair = fn(string $name) => \NineTally\Core\Comparison\ColumnPair::between($name, $name);
        $identity = new FindingIdentity('moorings', '["basin","berth"]');
        $names = [
            ...array_map(
                $identity->ofRow(...),
                array_values(array_filter($this->found, static fn(RowFinding $row): bool => $row->class->isFinding())),
            ),
            $identity->ofCell($this->found[0], $pair('holder')),
            $identity->ofCell($this->found[0], $pair('fee')),
            (new FindingIdentity('vessels', '["basin","berth"]'))->ofCell($this->found[0], $pair('fee')),
            (new FindingIdentity('moorings', '["berth"]'))->ofCell($this->found[0], $pair('fee')),
        ];

        self::assertCount(9, array_unique($names));
        $before = $names[0];
        $this->tally(self::HEADER."OT,5,Zoe,1\nLM,1,Bo,20\nLM,1,Bo,20\n", self::HEADER."OT,5,Zoe,1\n");
        self::assertSame($before, $identity->ofRow($this->found[0]), 'The row has moved, and is the same finding.');
    }

    public function test_reports_progress_that_never_falls_and_ends_at_one(): void
    {
        $progress = new class () implements Progress {
            /** @var list<ProgressReport> */
            public array $reports = [];

            public function report(ProgressReport $report): void
            {
                $this->reports[] = $report;
            }
        };
        $rows = implode('', array_map(static fn(int $row): string => "B{$row},1,holder {$row},10\n", range(1, 20_000)));
        $this->tally(self::HEADER.$rows, self::HEADER.$rows, partitions: 4, progress: $progress);
        $done = array_map(static fn(ProgressReport $report): float => $report->done, $progress->reports);
        $sorted = $done;
        sort($sorted);

        self::assertSame($sorted, $done);
        self::assertGreaterThan(10, count($done));
        self::assertSame(1.0, end($done));
        self::assertSame(['source' => 20_000, 'target' => 20_000], $progress->reports[count($progress->reports) - 1]->rows);
    }

    public function test_ends_when_nobody_wants_the_result_any_more(): void
    {
        $progress = new class () implements Progress {
            public function report(ProgressReport $report): void
            {
                throw TallyCancelled::byPerson();
            }
        };

        $this->expectException(TallyCancelled::class);
        $this->tally(self::HEADER."KB,1,Ann,10\n", self::HEADER."KB,1,Ann,10\n", progress: $progress);
    }

    public function test_a_finding_that_is_lost_on_its_way_fails_the_tally(): void
    {
        $work = $this->folder('work-that-loses');
        $crew = new class ($work) implements TaskExecutor {
            public function __construct(private readonly string $workspace) {}

            public function perform(TallyWork $work, array $tasks, callable $onProgress, callable $onDone): void
            {
                (new SequentialExecutor)->perform($work, $tasks, $onProgress, $onDone);
                foreach (glob("{$this->workspace}/match-*.result") ?: [] as $path) {
                    // What was found is still counted, but nobody looks for it any more.
                    $result = unserialize((string) file_get_contents($path));
                    \assert(is_array($result));
                    file_put_contents($path, serialize(['findings' => ['source' => false, 'target' => false]] + $result));
                }
            }
        };
        $plan = new Plan([new KeyColumn('berth', 'berth')], []);
        $run = new TallyRun(
            $plan,
            new Sides($this->reader("berth\n1\n", 'old.csv'), $this->reader("berth\n2\n", 'new.csv')),
            $work,
            executor: $crew,
        );

        $this->expectException(UnbalancedTally::class);
        $this->expectExceptionMessage('findings merged = findings counted: 0 against 2');
        iterator_to_array($run->findings(), false);
    }
}
