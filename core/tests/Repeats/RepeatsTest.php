<?php

declare(strict_types=1);

namespace NineTally\Tests\Repeats;

use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Comparison\RowReason;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Repeats\DecidingColumn;
use NineTally\Core\Repeats\DifferingPolicy;
use NineTally\Core\Repeats\PolicyId;
use NineTally\Core\Repeats\RepeatsPolicy;
use NineTally\Core\Tally\Summary;
use NineTally\Core\Value\Kind;
use NineTally\Tests\Tally\Tallied;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Rows that share a key: the group before, and the row that each policy keeps. */
final class RepeatsTest extends TestCase
{
    use ToldRows;

    use Tallied;

    private const OLD = "berth,fee,seen\n1,10,2026-01-05\n1,9,2026-03-01\n1,,2025-12-31\n2,5,\n";

    private const NEW = "berth,fee,seen\n1,9,2026-03-01\n2,5,\n";

    /** @param list<string> $expected */
    #[DataProvider('policies')]
    public function test_keeps_the_row_that_the_policy_says(RepeatsPolicy $policy, array $expected): void
    {
        $summary = $this->compare(self::OLD, self::NEW, new SideRules(repeats: $policy));

        self::assertSame($expected, array_map($this->told(...), $this->found));
        $notKept = count(preg_grep('/^repeated source .* keeps/', $expected) ?: []);
        $setAside = count(preg_grep('/^repeated source \d+$/', $expected) ?: []);
        self::assertSame(
            ['set_aside' => $setAside, 'not_kept' => $notKept, 'kept' => $notKept > 0 ? 1 : 0],
            $summary->source->repeats(),
        );
    }

    /** @return iterable<string, array{RepeatsPolicy, list<string>}> */
    public static function policies(): iterable
    {
        yield 'set aside: the target row with the key is repeated too' => [
            RepeatsPolicy::setAside(),
            ['repeated source 2', 'repeated source 3', 'repeated source 4', 'repeated target 2'],
        ];
        yield 'the first' => [
            RepeatsPolicy::of(PolicyId::KeepFirst),
            ['changed both 2', 'repeated source 3 keeps 2', 'repeated source 4 keeps 2'],
        ];
        yield 'the last' => [
            RepeatsPolicy::of(PolicyId::KeepLast),
            ['repeated source 2 keeps 4', 'repeated source 3 keeps 4', 'changed both 4'],
        ];
        yield 'the highest number, not the highest text' => [
            RepeatsPolicy::byColumn(PolicyId::KeepHighest, 'fee', Kind::Number),
            ['changed both 2', 'repeated source 3 keeps 2', 'repeated source 4 keeps 2'],
        ];
        yield 'the highest text' => [
            RepeatsPolicy::byColumn(PolicyId::KeepHighest, 'fee', Kind::Text),
            ['repeated source 2 keeps 3', 'repeated source 4 keeps 3'],
        ];
        yield 'the lowest: blank comes last' => [
            RepeatsPolicy::byColumn(PolicyId::KeepLowest, 'fee', Kind::Number),
            ['repeated source 2 keeps 3', 'repeated source 4 keeps 3'],
        ];
        yield 'the latest day' => [
            RepeatsPolicy::byColumn(PolicyId::KeepHighest, 'seen', Kind::Date),
            ['repeated source 2 keeps 3', 'repeated source 4 keeps 3'],
        ];
        yield 'a policy of its own for rows that differ in both' => [
            RepeatsPolicy::setAside()->withOwn([
                new DifferingPolicy(['fee'], RepeatsPolicy::of(PolicyId::KeepFirst)),
                new DifferingPolicy(['seen', 'fee'], RepeatsPolicy::of(PolicyId::KeepLast)),
            ]),
            ['repeated source 2 keeps 4', 'repeated source 3 keeps 4', 'changed both 4'],
        ];
        yield 'none of its own for rows that differ in more' => [
            RepeatsPolicy::of(PolicyId::KeepFirst)->withOwn([new DifferingPolicy(['fee'], RepeatsPolicy::of(PolicyId::KeepLast))]),
            ['changed both 2', 'repeated source 3 keeps 2', 'repeated source 4 keeps 2'],
        ];
        yield 'copies: these are none, so they are set aside' => [
            RepeatsPolicy::of(PolicyId::CollapseCopies),
            ['repeated source 2', 'repeated source 3', 'repeated source 4', 'repeated target 2'],
        ];
    }

    /** A key of very many rows is not held; what is found must not depend on it. */
    #[DataProvider('manyRows')]
    public function test_a_key_of_very_many_rows_is_matched_like_any_other(RepeatsPolicy $policy): void
    {
        $rows = array_map(
            static fn(int $row): string => ($row % 3 === 0 ? $row : '1').
                ','.
                ($row * 7) % 9_973 .
                ',2026-01-05'.
                str_repeat(' ', 400).
                "\n",
            range(1, 18_000),
        );
        $plan = new Plan([new KeyColumn('berth', 'berth')], [ColumnPair::between('fee', 'fee')], source: new SideRules(repeats: $policy));
        $found = [];
        foreach ([16, 2_000] as $megabytes) {
            $summary = $this->tallyOf(
                $plan,
                $this->reader("berth,fee,seen\n".implode('', $rows), 'old.csv'),
                $this->reader(self::NEW, 'new.csv'),
                settings: new \NineTally\Core\Tally\TallySettings($megabytes * 1_048_576, partitions: 1),
            );
            $found[] = [array_map($this->told(...), $this->found), $summary->source->repeats()];
        }

        self::assertCount(18_000 + ($policy->isDefault() ? 2 : 1), $found[1][0]);
        self::assertSame($found[1], $found[0]);
    }

    /** @return iterable<string, array{RepeatsPolicy}> */
    public static function manyRows(): iterable
    {
        yield 'set aside' => [RepeatsPolicy::setAside()];
        yield 'the first' => [RepeatsPolicy::of(PolicyId::KeepFirst)];
        yield 'the last' => [RepeatsPolicy::of(PolicyId::KeepLast)];
        yield 'the highest' => [RepeatsPolicy::byColumn(PolicyId::KeepHighest, 'fee', Kind::Number)];
        yield 'of its own' => [
            RepeatsPolicy::of(PolicyId::KeepFirst)->withOwn([
                new DifferingPolicy(['fee'], RepeatsPolicy::byColumn(PolicyId::KeepLowest, 'fee', Kind::Number)),
            ]),
        ];
    }

    public function test_ties_keep_the_first_and_what_cannot_be_read_comes_last(): void
    {
        $this->compare(
            "berth,fee\n1,soon\n1,10.0\n1,10\n",
            "berth,fee\n1,10.0\n",
            new SideRules(repeats: RepeatsPolicy::byColumn(PolicyId::KeepHighest, 'fee', Kind::Number)),
        );

        self::assertSame(['repeated source 2 keeps 3', 'repeated source 4 keeps 3'], array_map($this->told(...), $this->found));
    }

    public function test_a_fraction_of_a_second_decides_which_is_the_latest(): void
    {
        $seen = static fn(string $fraction): string => "1,2026-01-05T10:00:00{$fraction}Z";
        $rules = new SideRules(repeats: RepeatsPolicy::byColumn(PolicyId::KeepHighest, 'seen', Kind::DateTime));
        $plan = new Plan([new KeyColumn('berth', 'berth')], [], source: $rules);
        $this->tallyOf(
            $plan,
            $this->reader(implode("\n", ['berth,seen', $seen('.100'), $seen('.9'), $seen('.25'), $seen('')])."\n", 'old.csv'),
            $this->reader("berth\n1\n", 'new.csv'),
        );

        self::assertSame(
            ['repeated source 2 keeps 3', 'repeated source 4 keeps 3', 'repeated source 5 keeps 3'],
            array_map($this->told(...), $this->found),
        );
    }

    public function test_what_a_column_does_not_decide_a_second_one_may_and_what_neither_does_is_counted(): void
    {
        $rows = "berth,fee,seen\n1,10,2026-01-05\n1,10.0,2026-03-01\n1,9,2026-05-01\n2,,\n2,,\n3,5,\n3,4,\n";
        $kept = function (?DecidingColumn $then) use ($rows): array {
            $summary = $this->compare(
                $rows,
                "berth,fee\n1,10\n2,\n3,5\n",
                new SideRules(repeats: RepeatsPolicy::byColumn(PolicyId::KeepHighest, 'fee', Kind::Number, $then)),
            );

            return [
                $summary->key->undecided['source'],
                array_map(
                    fn(RowFinding $row): string => $this->told($row).($row->reason === RowReason::Undecided ? ' undecided' : ''),
                    array_values(array_filter($this->found, static fn(RowFinding $row): bool => $row->kept !== null)),
                ),
            ];
        };

        self::assertSame(
            [
                2,
                [
                    'repeated source 3 keeps 2 undecided',
                    'repeated source 4 keeps 2 undecided',
                    'repeated source 6 keeps 5 undecided',
                    'repeated source 8 keeps 7',
                ],
            ],
            $kept(null),
        );
        self::assertSame(
            [
                1,
                [
                    'repeated source 2 keeps 3',
                    'repeated source 4 keeps 3',
                    'repeated source 6 keeps 5 undecided',
                    'repeated source 8 keeps 7',
                ],
            ],
            $kept(new DecidingColumn('seen', Kind::Date)),
        );
        self::assertSame(
            [
                1,
                [
                    'repeated source 3 keeps 2',
                    'repeated source 4 keeps 2',
                    'repeated source 6 keeps 5 undecided',
                    'repeated source 8 keeps 7',
                ],
            ],
            $kept(new DecidingColumn('seen', Kind::Date, keepsHighest: false)),
        );
    }

    public function test_copies_may_differ_in_named_columns(): void
    {
        $rows = "berth,fee,seen\n1,10,2026-01-05\n1,10,2026-03-01\n2,5,2026-01-05\n2,6,2026-01-05\n";
        $this->compare($rows, "berth,fee\n1,10\n2,5\n", new SideRules(repeats: RepeatsPolicy::copies(['seen'])));

        self::assertSame(
            ['repeated source 3 keeps 2', 'repeated source 4', 'repeated source 5', 'repeated target 3'],
            array_map($this->told(...), $this->found),
        );
    }

    public function test_exact_copies_collapse_to_the_first(): void
    {
        $this->compare("berth,fee\n1,10\n1,10\n", "berth,fee\n1,10\n", new SideRules(repeats: RepeatsPolicy::of(PolicyId::CollapseCopies)));

        self::assertSame(['repeated source 3 keeps 2'], array_map($this->told(...), $this->found));
    }

    public function test_pairs_in_order_and_the_surplus_is_missing(): void
    {
        $inOrder = new SideRules(repeats: RepeatsPolicy::of(PolicyId::PairInOrder));
        $summary = $this->compare("berth,fee\n1,10\n1,20\n1,30\n", "berth,fee\n1,10\n1,21\n", $inOrder, $inOrder);

        self::assertSame(['changed both 3', 'missing source 4'], array_map($this->told(...), $this->found));
        self::assertSame(RowReason::FewerRows, $this->found[1]->reason);
        self::assertSame([1, 0], [$summary->source->agreed, $summary->source->repeated]);
    }

    private function compare(string $source, string $target, SideRules $sourceRules, SideRules $targetRules = new SideRules): Summary
    {
        return $this->tallyOf(
            new Plan([new KeyColumn('berth', 'berth')], [ColumnPair::between('fee', 'fee')], source: $sourceRules, target: $targetRules),
            $this->reader($source, 'old.csv'),
            $this->reader($target, 'new.csv'),
        );
    }
}
