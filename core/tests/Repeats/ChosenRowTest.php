<?php

declare(strict_types=1);

namespace NineTally\Tests\Repeats;

use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Comparison\RowReason;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Plan\UnusablePlan;
use NineTally\Core\Repeats\ChosenRow;
use NineTally\Core\Repeats\PolicyId;
use NineTally\Core\Repeats\RepeatsPolicy;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\Side;
use NineTally\Core\Tally\Summary;
use NineTally\Core\Tally\TallySettings;
use NineTally\Tests\Tally\Tallied;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** The row that a person keeps of some that share a key: before the policy, and as long as these rows are the same. */
final class ChosenRowTest extends TestCase
{
    use Tallied;
    use ToldRows;

    private const ROWS = [['1', '10'], ['1', '9'], ['2', '5'], ['2', '6']];

    private const NEW = "berth,fee\n1,9\n2,5\n";

    /** @param list<string> $expected */
    #[DataProvider('policies')]
    public function test_what_was_chosen_comes_before_the_policy(PolicyId $policy, array $expected): void
    {
        $summary = $this->compare(self::ROWS, $policy, $this->chosen(['1', '9'], ['1', '10']));

        self::assertSame($expected, array_map($this->told(...), $this->found));
        self::assertSame([1, [], []], $this->choices($summary));
        $notKept = array_values(array_filter($this->found, static fn(RowFinding $row): bool => $row->source?->line === 2));
        self::assertSame(RowReason::NotChosen, $notKept[0]->reason);
    }

    /** @return iterable<string, array{PolicyId, list<string>}> */
    public static function policies(): iterable
    {
        yield 'others are set aside' => [
            PolicyId::SetAside,
            ['repeated source 2 keeps 3', 'repeated source 4', 'repeated source 5', 'repeated target 3'],
        ];
        yield 'of others the last is kept' => [
            PolicyId::KeepLast,
            ['repeated source 2 keeps 3', 'repeated source 4 keeps 5', 'changed both 5'],
        ];
        yield 'others are paired in order' => [
            PolicyId::PairInOrder,
            ['repeated source 2 keeps 3', 'missing source 5'],
        ];
    }

    public function test_it_holds_wherever_the_rows_stand_and_in_whatever_order(): void
    {
        $summary = $this->compare([['3', '1'], ...array_reverse(self::ROWS)], PolicyId::SetAside, $this->chosen(['1', '9'], ['1', '10']));

        self::assertSame([1, [], []], $this->choices($summary));
        self::assertContains('repeated source 6 keeps 5', array_map($this->told(...), $this->found));
    }

    /** @param list<list<string>> $rows */
    #[DataProvider('otherRows')]
    public function test_it_is_reopened_when_the_rows_are_not_the_same_any_more(array $rows, bool $isIdle): void
    {
        $summary = $this->compare($rows, PolicyId::KeepFirst, $this->chosen(['1', '9'], ['1', '10']));

        self::assertSame([0, $isIdle ? [] : [['1']], $isIdle ? [['1']] : []], $this->choices($summary));
        self::assertSame($isIdle ? 'idle-choice' : 'reopened-choice', $summary->warnings()[0]->kind->value);
        self::assertSame(['side' => 'source', 'key' => '1'], $summary->warnings()[0]->facts);
    }

    /** @return iterable<string, array{list<list<string>>, bool}> */
    public static function otherRows(): iterable
    {
        yield 'one more' => [[...self::ROWS, ['1', '11']], false];
        yield 'a copy of one more' => [[...self::ROWS, ['1', '9']], false];
        yield 'another value' => [[['1', '10'], ['1', '9.0']], false];
        yield 'the one that was chosen is gone' => [[['1', '10'], ['1', '10']], false];
        yield 'one alone is left, and it is not repeated' => [[['1', '9']], true];
        yield 'none is left' => [[['2', '5']], true];
    }

    public function test_a_key_of_very_many_rows_is_no_exception(): void
    {
        $rows = array_map(static fn(int $row): array => ['1', $row.str_repeat(' ', 400)], range(1, 12_000));
        $this->compare($rows, PolicyId::SetAside, $this->chosen($rows[7_000], ...$rows), new TallySettings(16 * 1_048_576, partitions: 1));

        self::assertSame('changed both 7002', $this->told($this->found[7_000]));
        self::assertSame('repeated source 7003 keeps 7002', $this->told($this->found[7_001]));
    }

    public function test_two_choices_for_one_key_and_a_key_of_another_length_are_no_plan(): void
    {
        $chosen = $this->chosen(['1', '9'], ['1', '10']);
        $wide = new ChosenRow(Side::Source, ['1', '2'], $chosen->group, $chosen->row, 'seen on site');

        try {
            $this->compare(self::ROWS, PolicyId::SetAside, $chosen, more: [$chosen, $wide]);
            self::fail('A plan that cannot be.');
        } catch (UnusablePlan $unusable) {
            self::assertSame(
                ['/keptRows/1', '/keptRows/2/key'],
                array_map(static fn(\NineTally\Core\Plan\Problem $problem): string => $problem->pointer, $unusable->problems),
            );
        }
    }

    /** @param list<string> $row */
    private static function digest(array $row): string
    {
        return ChosenRow::rowDigest(implode(KeyTuple::SEPARATOR, $row));
    }

    /**
     * @param  list<string>  $kept
     * @param  list<string>  ...$others
     */
    private function chosen(array $kept, array ...$others): ChosenRow
    {
        $rows = in_array($kept, $others, true) ? $others : [$kept, ...$others];

        return new ChosenRow(
            Side::Source,
            [$kept[0]],
            ChosenRow::groupDigest(array_map(self::digest(...), array_values($rows))),
            self::digest($kept),
            'seen on site',
        );
    }

    /** @return array{int, list<list<string>>, list<list<string>>} */
    private function choices(Summary $summary): array
    {
        $choices = $summary->key->choices->toArray();

        return [$choices['held'], array_column($choices['reopened'], 'key'), array_column($choices['idle'], 'key')];
    }

    /**
     * @param  list<list<string>>  $rows
     * @param  list<ChosenRow>  $more
     */
    private function compare(
        array $rows,
        PolicyId $policy,
        ChosenRow $chosen,
        TallySettings $settings = new TallySettings,
        array $more = [],
    ): Summary {
        $rules = new SideRules(repeats: RepeatsPolicy::of($policy), keptRows: [$chosen, ...$more]);
        $others = new SideRules(repeats: RepeatsPolicy::of($policy));
        $written = implode('', array_map(static fn(array $row): string => implode(',', $row)."\n", $rows));

        return $this->tallyOf(
            new Plan(
                [new KeyColumn('berth', 'berth')],
                [ColumnPair::between('fee', 'fee')],
                source: $rules,
                target: $policy === PolicyId::PairInOrder ? $others : new SideRules,
            ),
            $this->reader("berth,fee\n{$written}", 'old.csv'),
            $this->reader(self::NEW, 'new.csv'),
            settings: $settings,
        );
    }
}
