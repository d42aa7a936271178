<?php

declare(strict_types=1);

namespace NineTally\Tests\Tally;

use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\UnusablePlan;
use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Records\RecordReport;
use NineTally\Core\Records\RecordSource;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\TallyRun;
use PHPUnit\Framework\TestCase;

/** Values that must have a record in another dataset, each side in its own world. Figures are worked out by hand. */
final class RecordsTest extends TestCase
{
    use Tallied;

    private const RULE = [
        'in' => 'Holders',
        'columns' => [['source' => 'holder', 'target' => 'owner']],
        'by' => [['source' => 'no', 'target' => 'id']],
    ];

    /** H2 had a record and lost it, H3 never had one, X9 came from nowhere; H5 and H6 nobody refers to. */
    public function test_what_the_move_lost_is_told_apart_from_what_was_never_there(): void
    {
        $report = $this->report(
            "licence,holder\n1,H1\n2,H2\n3,H3\n4,H3\n5,\n6,H4\n",
            "licence,owner\n1,H1\n2,H2\n3,H3\n4,X9\n5,\n7,H2\n",
            ['source' => "no,name\nH1,a\nH2,b\nH4,d\nH5,e\nH5,again\n", 'target' => "id\nH1\nH4\nH6\n"],
        );

        self::assertSame(
            [
                'problem' => null, 'rows' => 6, 'blank' => 1, 'found' => 3, 'without' => 2, 'values' => 4, 'valuesWithout' => 1,
                'records' => 5, 'recordValues' => 4, 'refused' => 0, 'unreferenced' => 1,
            ],
            $report->sides['source'],
        );
        self::assertSame(
            [['lost', ['H2'], 2, ['2']], ['inherited', ['H3'], 1, ['3']], ['own', ['X9'], 1, ['4']], ['source', ['H3'], 2, ['3']]],
            array_map(
                static fn(array $one): array => [$one['kind'], $one['values'], $one['rows'], $one['first']],
                $report->missing(),
            ),
        );
        self::assertSame([['values' => ['H5'], 'records' => 2, 'part' => 1, 'line' => 5]], $report->unreferenced(Side::Source));
        self::assertSame([['H4'], ['H6']], array_column($report->unreferenced(Side::Target), 'values'));
    }

    public function test_values_meet_their_record_as_the_rule_forgives_and_the_other_world_through_the_crosswalk(): void
    {
        $report = $this->report(
            "licence,holder\n1,old-1\n2,OLD-2\n3,old-3\n",
            "licence,owner\n1,New-1\n2,new-2\n3,new-3\n",
            ['source' => "no\nold-1\nold-2\nold-3\n", 'target' => "id\nnew-1\n"],
            [...self::RULE, 'forgives' => ['case']],
            [[...self::RULE['columns'][0], 'crosswalk' => array_map(
                static fn(string $old, string $new): array => ['source' => $old, 'target' => $new],
                ['old-1', 'OLD-2', 'old-2', 'old-3'],
                ['new-1', 'new-2', 'new-2', 'new-3'],
            )]],
        );

        self::assertSame(0, $report->sides['source']['without']);
        self::assertSame(['lost' => 2, 'inherited' => 0, 'own' => 0], array_map(
            static fn(array $kind): int => $kind['values'],
            array_diff_key($report->kinds, ['untold' => 0, 'source' => 0]),
        ));
    }

    public function test_several_columns_name_a_record_together_and_a_partly_blank_one_is_looked_for(): void
    {
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $both = static fn(string ...$names): array => array_map($same, $names);
        $rows = "licence,basin,berth\n1,KB,1\n2,KB,2\n3,K,B2\n4,,\n5,KB,\n";
        $report = $this->report(
            $rows,
            $rows,
            ['source' => "b,n\nKB,1\nKB,2\n", 'target' => "b,n\nKB,1\n"],
            ['in' => 'Moorings', 'columns' => $both('basin', 'berth'), 'by' => $both('b', 'n')],
            [],
        );

        ['blank' => $blank, 'found' => $found, 'without' => $without] = $report->sides['source'];
        self::assertSame([1, 2, 2], [$blank, $found, $without]);
        self::assertSame(
            [['lost', ['KB', '2']], ['inherited', ['K', 'B2']], ['inherited', ['KB', '']]],
            array_map(static fn(array $one): array => [$one['kind'], $one['values']], array_slice($report->missing(), 0, 3)),
        );
    }

    public function test_what_was_not_delivered_is_said_and_nothing_is_claimed(): void
    {
        $rows = ["licence,holder\n1,H1\n", "licence,owner\n1,H1\n"];
        $none = $this->report(...$rows, records: ['source' => null, 'target' => "id\n"]);
        self::assertStringContainsString('Nothing was delivered for "Holders"', (string) $none->sides['source']['problem']);
        self::assertSame(['untold'], array_column($none->missing(), 'kind'));

        $other = $this->report(...$rows, records: ['source' => "number\nH1\n", 'target' => "id\nH1\n"]);
        self::assertStringContainsString('no column "no"', (string) $other->sides['source']['problem']);

        $this->expectException(UnusablePlan::class);
        $this->expectExceptionMessageMatches('/by 2 columns, and 1 columns need them/');
        $this->report(...$rows, records: ['source' => null, 'target' => null], rule: [
            ...self::RULE,
            'by' => [...self::RULE['by'], ['source' => 'a', 'target' => 'a']],
        ]);
    }

    public function test_of_more_values_than_are_told_those_are_told_that_most_rows_need(): void
    {
        $values = array_map(static fn(int $value): string => "h{$value}", range(1, 2 * RecordReport::TOLD + 500));
        $rows = "licence,holder\n".$this->numbered([...$values, 'h1', 'h9999', 'h9999']);
        $report = $this->report($rows, str_replace('holder', 'owner', $rows), ['source' => "no\n", 'target' => "id\n"]);

        self::assertSame(count($values), $report->kinds['inherited']['values']);
        $told = array_values(array_filter($report->missing(), static fn(array $one): bool => $one['kind'] === 'inherited'));
        self::assertCount(RecordReport::TOLD, $told);
        self::assertSame([['h9999'], ['h1'], ['h10']], array_column(array_slice($told, 0, 3), 'values'));
    }

    /** Law: a value is missing exactly where the sets of values and of records say so, however many runs they are sorted in. */
    public function test_many_values_are_held_against_many_records(): void
    {
        mt_srand(9);
        /** @return list<string> */
        $draw = static fn(int $rows, int $of): array => array_map(
            static fn(): string => 'h'.mt_rand(1, $of).str_repeat('x', 900),
            range(1, $rows),
        );
        [$source, $target, $old, $new] = [$draw(14_000, 12_000), $draw(14_000, 12_000), $draw(12_000, 12_000), $draw(12_000, 12_000)];
        $report = $this->report(
            "licence,holder\n".$this->numbered($source),
            "licence,owner\n".$this->numbered($target),
            ['source' => "no\n".implode("\n", $old)."\n", 'target' => "id\n".implode("\n", $new)."\n"],
        );
        $lacks = array_unique(array_diff($target, $new));

        self::assertSame(count(array_unique(array_diff($source, $old))), $report->kinds['source']['values']);
        self::assertSame(count(array_intersect($lacks, $old)), $report->kinds['lost']['values']);
        self::assertSame(count(array_intersect(array_diff($lacks, $old), $source)), $report->kinds['inherited']['values']);
        self::assertSame(count(array_diff($lacks, $old, $source)), $report->kinds['own']['values']);
        self::assertSame(count(array_diff($target, $new)), $report->sides['target']['without']);
        self::assertSame(count(array_unique(array_diff($new, $target))), $report->sides['target']['unreferenced']);
    }

    /** @param list<string> $values */
    private function numbered(array $values): string
    {
        return implode('', array_map(
            static fn(int $row, string $value): string => "{$row},{$value}\n",
            array_keys($values),
            $values,
        ));
    }

    /**
     * @param  array{source: string|null, target: string|null}  $records
     * @param  array<string, mixed>  $rule
     * @param  list<array<string, mixed>>|null  $pairs
     */
    private function report(string $source, string $target, array $records, array $rule = self::RULE, ?array $pairs = null): RecordReport
    {
        $licence = ['source' => 'licence', 'target' => 'licence'];
        $plan = Plan::fromJson(CanonicalJson::of([
            'formatVersion' => Plan::FORMAT_VERSION,
            'key' => [$licence],
            'columnPairs' => array_map(
                static fn(array $pair): array => ['id' => 'pair-000000000001', ...$pair],
                $pairs ?? [self::RULE['columns'][0]],
            ),
            'records' => [$rule],
        ]));
        $stacks = array_map(
            fn(?string $content): ?PartStack => $content === null
                ? null
                : new PartStack([['reader' => $this->reader($content, 'records-'.md5($content)), 'label' => '']]),
            $records,
        );
        $findings = (new TallyRun(
            $plan,
            new Sides($this->reader($source, 'old.csv'), $this->reader($target, 'new.csv')),
            $this->folder('work-'.bin2hex(random_bytes(4))),
            recordSource: new class ($stacks) implements RecordSource {
                /** @param array{source: PartStack|null, target: PartStack|null} $stacks */
                public function __construct(private array $stacks) {}

                public function stack(string $dataset, Side $side): ?PartStack
                {
                    return $this->stacks[$side->value];
                }
            },
        ))->findings();
        iterator_to_array($findings, false);

        return $findings->getReturn()->reports->records[0];
    }
}
