<?php

declare(strict_types=1);

namespace NineTally\Tests\Preparation;

use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Intake\Delimited\DelimitedReader;
use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Preparation\PreparedReader;
use NineTally\Core\Preparation\PreparedSide;
use NineTally\Core\Preparation\UnusableStep;
use NineTally\Core\Row\Row;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\TallyRun;
use NineTally\Core\Tally\TallySettings;
use NineTally\Core\Wording\Sentences;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\TestCase;

/** Parts that stack, sides that are prepared, and the tally of them. */
final class PreparedSideTest extends TestCase
{
    use TemporaryFiles;

    private const SPRING = "basin,berth,apr,may\nKB,1,41.20,41.20\nKB,2,\"44\n\",\nbad\n,,,\n";

    private const SUMMER = "berth;basin;apr;may;note\n7;LM;9;9;late\n";

    public function test_parts_are_united_by_name_and_each_row_knows_where_it_was_delivered(): void
    {
        $stack = $this->stack('origin');
        $reader = $this->prepared($stack, []);
        $rows = [];
        foreach ($reader->records() as $record) {
            $place = $reader->place($record->line);
            $rows[] = "{$place->part}:{$place->line} ".($record instanceof Row ? implode('|', $record->cells) : $record->reason->value);
        }

        self::assertSame(['basin', 'berth', 'apr', 'may', 'note', 'origin'], $reader->columns()->names);
        self::assertSame(['note' => [2]], $stack->partial());
        self::assertSame(
            [
                '1:2 KB|1|41.20|41.20||spring',
                "1:3 KB|2|44\n|||spring",
                '1:5 wrong-number-of-cells',
                '1:6 |||||spring',
                '2:2 LM|7|9|9|late|summer',
            ],
            $rows,
        );
    }

    public function test_a_tally_of_prepared_sides_accounts_for_every_delivered_row(): void
    {
        $fold = ['id' => 'b', 'kind' => 'columns-into-rows', 'columns' => ['apr', 'may'], 'namesInto' => 'month', 'valuesInto' => 'charge'];
        $preparation = [
            [
                'id' => 'a',
                'kind' => 'leave-out-rows',
                'condition' => ['column' => 'basin', 'test' => 'is-blank'],
                'reason' => 'the subtotal lines',
            ],
            $fold,
        ];
        $plan = Plan::fromJson(
            CanonicalJson::of([
                'formatVersion' => 3,
                'key' => array_map(static fn(string $name): array => ['source' => $name, 'target' => $name], ['basin', 'berth', 'month']),
                'columnPairs' => [['id' => 'pair-000000000000', 'source' => 'charge', 'target' => 'charge']],
                'sides' => ['source' => ['preparation' => $preparation]],
            ]),
        );
        $target = DelimitedReader::detecting(
            $this->file("basin,berth,month,charge\nLM,7,may,9\nKB,1,apr,41.20\nKB,1,may,41.2\nKB,2,apr,\"44\n\"\nLM,7,apr,9\n", 'long.csv'),
            'long.csv',
        );
        $results = [];
        foreach ([1 << 25, 8] as $rangeBytes) {
            $findings = (new TallyRun(
                $plan,
                new Sides($this->prepared($this->stack(), $preparation), $target),
                $this->folder("work-{$rangeBytes}"),
                settings: new TallySettings(rangeBytes: $rangeBytes),
            ))->findings();
            $found = array_map(
                static fn(RowFinding $row): string => "{$row->class->value} ".
                    ($row->source !== null ? "{$row->source->part}:{$row->source->line}" : '').
                    ($row->refused !== null ? "{$row->refused->part}:{$row->refused->line}" : '').
                    ' '.
                    $row->key?->asCsv(),
                iterator_to_array($findings, false),
            );
            $results[] = [$found, $findings->getReturn()->source->toArray()];
        }

        self::assertSame(
            [
                ['changed 1:2 KB,1,may', 'missing 1:3 KB,2,may', 'refused 1:5 '],
                [
                    'read' => 5,
                    'refused' => 1,
                    'delivered' => 4,
                    'left_out' => 1,
                    'made' => 3,
                    'condensed' => 0,
                    'prepared' => 6,
                    'unkeyed' => 0,
                    'repeated' => 0,
                    'agreed' => 4,
                    'changed' => 1,
                    'missing' => 1,
                ],
            ],
            $results[0],
        );
        self::assertSame($results[0], $results[1], 'Read in one piece or in many.');
    }

    public function test_a_row_whose_counterpart_a_step_left_out_says_so_and_pairs_say_what_steps_altered(): void
    {
        $steps = [
            [
                'id' => 'a',
                'kind' => 'leave-out-rows',
                'condition' => ['column' => 'apr', 'test' => 'is', 'value' => '9'],
                'reason' => 'billed elsewhere',
            ],
            [
                'id' => 'b',
                'kind' => 'tidy-text',
                'columns' => ['apr', 'berth'],
                'actions' => [['action' => 'trim'], ['action' => 'replace', 'find' => '41.20', 'with' => '41.2']],
            ],
            ['id' => 'c', 'kind' => 'rename-columns', 'names' => [['from' => 'apr', 'to' => 'charge']]],
        ];
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $plan = Plan::fromJson(
            CanonicalJson::of([
                'formatVersion' => 3,
                'key' => [[...$same('basin'), 'forgives' => ['case']], $same('berth')],
                'columnPairs' => [['id' => 'pair-000000000000', ...$same('charge')]],
                'sides' => ['source' => ['preparation' => $steps]],
            ]),
        );
        $target = DelimitedReader::detecting($this->file("basin,berth,charge\nlm,7,9\nKB,1,41.2\nOT,3,1\n", 'long.csv'), 'long.csv');
        $findings = (new TallyRun($plan, new Sides($this->prepared($this->stack(), $steps), $target), $this->folder('work')))->findings();
        $reasons = [];
        foreach ($findings as $finding) {
            $reasons[] = "{$finding->class->value} {$finding->key?->asCsv()}: ".(new Sentences)->remark($finding);
        }

        self::assertContains(
            'extra lm,7: Without a counterpart on the other side: its key was left out there by step 1: Leave out rows where apr is "9".',
            $reasons,
        );
        self::assertContains('extra ot,3: ', $reasons);
        // One charge was replaced, and a line end is no space to trim; the column is called otherwise now.
        self::assertSame(['source' => 1, 'target' => 0], $findings->getReturn()->columns[0]['altered']);
    }

    public function test_a_step_that_fails_leaves_nothing_that_looks_whole(): void
    {
        $side = PreparedSide::in($this->folder('side'));
        try {
            $side->make(
                $this->stack(),
                $this->rules([['id' => 'a', 'kind' => 'leave-out-columns', 'columns' => ['barth']]]),
                'source',
                static fn(int $bytes, int $records) => null,
            );
            self::fail('The column is not there.');
        } catch (UnusableStep $problem) {
            self::assertSame(
                'Step 1 of the source (Leave out the column barth): There is no column "barth" at this step. The nearest is "berth".',
                $problem->getMessage(),
            );
        }
        self::assertFalse($side->isWhole());
        self::assertSame([], glob($this->folder('side').'/*'));
    }

    public function test_preparing_holds_no_side_in_memory(): void
    {
        $rows = '';
        for ($row = 0; $row < 150_000; $row++) {
            $rows .= "KB,{$row},holder of berth number {$row} in the old register,9\n";
        }
        $path = $this->file("basin,berth,holder,fee\n{$rows}", 'long.csv');
        unset($rows);
        $stack = new PartStack([['reader' => DelimitedReader::detecting($path, 'long.csv'), 'label' => 'long']]);
        memory_reset_peak_usage();
        $before = memory_get_usage();
        PreparedSide::in($this->folder('side'))->make(
            $stack,
            $this->rules([
                ['id' => 'a', 'kind' => 'tidy-text', 'columns' => ['holder'], 'actions' => [['action' => 'upper']]],
                ['id' => 'b', 'kind' => 'keep-one-row', 'by' => ['berth']],
            ]),
            'source',
            static fn(int $bytes, int $records) => null,
        );

        self::assertLessThan(48 * 1024 * 1024, memory_get_peak_usage() - $before);
    }

    private function stack(?string $partLabelColumn = null): PartStack
    {
        $catalogue = new ReaderCatalogue;

        return new PartStack([
            ['reader' => $catalogue->open($this->file(self::SPRING, 'spring.csv'), 'spring.csv'), 'label' => 'spring'],
            ['reader' => $catalogue->open($this->file(self::SUMMER, 'summer.csv'), 'summer.csv'), 'label' => 'summer'],
        ], $partLabelColumn);
    }

    /** @param list<array<string, mixed>> $steps */
    private function rules(array $steps): \NineTally\Core\Preparation\Preparation
    {
        return Plan::fromJson(
            CanonicalJson::of([
                'formatVersion' => 3,
                'key' => [['source' => 'k', 'target' => 'k']],
                'columnPairs' => [],
                ...$steps === [] ? [] : ['sides' => ['source' => ['preparation' => $steps]]],
            ]),
        )->source->preparation;
    }

    /** @param list<array<string, mixed>> $steps */
    private function prepared(PartStack $stack, array $steps): PreparedReader
    {
        $side = PreparedSide::in($this->folder('side-'.bin2hex(random_bytes(4))));
        $side->make($stack, $this->rules($steps), 'source', static fn(int $bytes, int $records) => null);

        return new PreparedReader($side, 'the old register');
    }
}
