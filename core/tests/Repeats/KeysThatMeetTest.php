<?php

declare(strict_types=1);

namespace NineTally\Tests\Repeats;

use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Comparison\RowReason;
use NineTally\Core\Plan\Bridge;
use NineTally\Core\Plan\Bridges;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Wording\Warning;
use NineTally\Core\Wording\WarningKind;
use NineTally\Tests\Tally\Tallied;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Keys that meet though they are not written alike. */
final class KeysThatMeetTest extends TestCase
{
    use ToldRows;

    use Tallied;

    public function test_a_key_that_forgives_counts_what_it_forgave_and_tells_apart_what_repeats_by_it_alone(): void
    {
        $plan = new Plan(
            [new KeyColumn('berth', 'berth', ['spacing', 'case'])],
            [ColumnPair::between('fee', 'fee')],
            source: new SideRules(['blankTokens' => ['NULL']]),
        );
        $summary = $this->tallyOf(
            $plan,
            $this->reader("berth,fee\nKB 1,10\nlm 2,20\nLM 2,20\nNULL,3\n", 'old.csv'),
            $this->reader("berth,fee\nkb  1,10\nLM 2,20\n", 'new.csv'),
        );

        self::assertSame(
            [
                [
                    'source' => 'berth',
                    'target' => 'berth',
                    'cause' => 'spacing+case',
                    'cells' => 1,
                    'examples' => [['source' => 'KB 1', 'target' => 'kb  1']],
                ],
            ],
            $summary->key->forgiven,
        );
        self::assertSame(
            [1, 1, 2, 1],
            [$summary->source->agreed, $summary->source->keysRepeatedByForgiving, $summary->source->repeated, $summary->source->unkeyed],
        );
        self::assertContainsEquals(new Warning(WarningKind::RepeatedByForgiving, ['side' => 'source', 'keys' => 1]), $summary->warnings());
    }

    /**
     * The old system writes NULL and the new one does not: the commonest plan there is.
     *
     */
    #[DataProvider('tokensOfOneSide')]
    public function test_a_blank_token_declared_on_one_side_alone_works(SideRules $source, SideRules $target, string $columns): void
    {
        $plan = new Plan(
            [new KeyColumn('basin', 'basin'), new KeyColumn('berth', 'berth')],
            [ColumnPair::between('fee', 'fee')],
            source: $source,
            target: $target,
        );
        $row = static fn(string $basin, string $berth, string $fee): string => implode(
            ',',
            array_map(
                static fn(string $column): string => ['basin' => $basin, 'berth' => $berth, 'fee' => $fee, 'note' => 'n'][$column] ?? '',
                explode(',', $columns),
            ),
        )."\n";
        $side = static fn(string ...$rows): string => "{$columns}\n".implode('', $rows);
        $summary = $this->tallyOf(
            $plan,
            $this->reader(
                $side($row('KB', '1', 'x'), $row('KB', 'NULL', 'y'), $row('NULL', 'NULL', 'z'), $row('LM', '2', 'NULL')),
                'old.csv',
            ),
            $this->reader($side($row('KB', '1', 'x'), $row('KB', '', 'y'), $row('LM', '2', '')), 'new.csv'),
        );

        $isDeclared = ! $source->isDefault();
        self::assertSame($isDeclared ? [3, 0, 1] : [2, 2, 0], [
            $summary->source->agreed + $summary->source->changed,
            $summary->source->unmatched,
            $summary->source->unkeyed,
        ]);
        self::assertSame(
            $isDeclared ? 'blank-token' : 'blanked',
            array_values(array_filter($this->found, static fn(RowFinding $found): bool => $found->cells !== []))[0]->cells[0]->cause,
        );
    }

    /** @return iterable<string, array{SideRules, SideRules, string}> */
    public static function tokensOfOneSide(): iterable
    {
        [$none, $null] = [new SideRules, new SideRules(['blankTokens' => ['NULL']])];
        $ofColumns = new SideRules(columns: array_fill_keys(['basin', 'berth', 'fee'], ['blankTokens' => ['NULL']]));
        foreach (
            ['with an unpaired column' => 'basin,berth,fee,note', 'without one' => 'basin,berth,fee', 'the key behind' => 'fee,berth,basin']
            as $how => $columns
        ) {
            yield "for the source, {$how}" => [$null, $none, $columns];
            yield "for the target, {$how}" => [$none, $null, $columns];
            yield "for both sides, {$how}" => [$null, $null, $columns];
            yield "for a column of the key and a compared one, {$how}" => [$ofColumns, $none, $columns];
        }
    }

    public function test_a_bridge_joins_two_keys_without_a_counterpart_and_is_idle_otherwise(): void
    {
        $plan = new Plan(
            [new KeyColumn('berth', 'berth')],
            [ColumnPair::between('fee', 'fee')],
            bridges: new Bridges([new Bridge(['014'], ['14A']), new Bridge(['2'], ['3']), new Bridge(['9'], ['8'])]),
        );
        $summary = $this->tallyOf(
            $plan,
            $this->reader("berth,fee\n014,10\n2,20\n9,1\n", 'old.csv'),
            $this->reader("berth,fee\n14A,11\n2,20\n3,30\n", 'new.csv'),
        );

        self::assertSame(['changed both 2', 'missing source 4', 'extra target 4'], array_map($this->told(...), $this->found));
        self::assertTrue($this->found[0]->isBridged);
        self::assertSame(RowReason::IdleBridge, $this->found[1]->reason);
        self::assertSame([1, 2], [$summary->key->bridged, count($summary->key->idleBridges)]);
    }
}
