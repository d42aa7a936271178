<?php

declare(strict_types=1);

namespace NineTally\Tests\Repeats;

use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Profile\Repeats\StakeColumn;
use NineTally\Core\Repeats\ChosenRow;
use NineTally\Core\Repeats\DifferingPolicy;
use NineTally\Core\Repeats\PolicyId;
use NineTally\Core\Repeats\RepeatsPolicy;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\Summary;
use NineTally\Core\Tally\Trial\PolicyTrial;
use NineTally\Core\Tally\Trial\RepeatedKeyRows;
use NineTally\Core\Tally\Trial\RowsAside;
use NineTally\Core\Tally\Trial\TriedPolicy;
use NineTally\Core\Tally\Workspace;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;
use NineTally\Tests\Tally\Tallied;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** A trial says of each policy what a tally of all rows says of it. */
final class PolicyTrialTest extends TestCase
{
    use Tallied;

    private Workspace $workspace;

    protected function setUp(): void
    {
        $this->workspace = Workspace::make();
    }

    protected function tearDown(): void
    {
        $this->workspace->remove();
    }

    /** What a tally of all rows counts, less what one of the rows counts whose key stands once, is what the trial counts. */
    #[DataProvider('policies')]
    public function test_counts_what_a_tally_counts_of_these_rows(RepeatsPolicy $policy): void
    {
        mt_srand(19);
        for ($round = 0; $round < 4; $round++) {
            [$source, $target] = [$this->rows(), $this->rows()];
            $repeated = array_filter(array_count_values(array_column($source, 0)), static fn(int $count): bool => $count > 1)
                + array_filter(array_count_values(array_column($target, 0)), static fn(int $count): bool => $count > 1);
            $single = static fn(array $row): bool => ! array_key_exists(is_string($row[0]) ? $row[0] : '', $repeated);
            $whole = self::figures($this->tally($source, $target, $policy));
            $others = self::figures($this->tally(array_filter($source, $single), array_filter($target, $single), $policy));

            [$trial, $keys] = $this->trial($source, $target);
            $tried = $trial->of(Sides::each(static fn(): RepeatsPolicy => $policy));

            self::assertSame(count($repeated), $keys);
            self::assertSame(
                array_map(static fn(int $all, int $other): int => $all - $other, $whole, $others),
                self::figures($tried->summary),
            );
        }
    }

    /** @return iterable<string, array{RepeatsPolicy}> */
    public static function policies(): iterable
    {
        foreach (array_filter(PolicyId::cases(), static fn(PolicyId $id): bool => ! $id->needsColumn()) as $id) {
            yield $id->value => [RepeatsPolicy::of($id)];
        }
        $highest = RepeatsPolicy::byColumn(PolicyId::KeepHighest, 'fee', Kind::Number);
        yield 'highest' => [$highest];
        yield 'highest, where nothing else differs' => [
            RepeatsPolicy::of(PolicyId::KeepLast)->withOwn([new DifferingPolicy(['fee'], $highest)]),
        ];
    }

    public function test_names_the_groups_in_which_two_policies_keep_different_rows(): void
    {
        [$trial] = $this->trial([['1', '10'], ['1', '9'], ['2', '5'], ['2', '5'], ['3', '1']], [['1', '9'], ['2', '5'], ['3', '1']]);
        $of = static fn(RepeatsPolicy $policy): TriedPolicy => $trial->of(Sides::each(static fn(): RepeatsPolicy => $policy));
        [$first, $last, $copies, $highest] = [
            $of(RepeatsPolicy::of(PolicyId::KeepFirst)),
            $of(RepeatsPolicy::of(PolicyId::KeepLast)),
            $of(RepeatsPolicy::of(PolicyId::CollapseCopies)),
            $of(RepeatsPolicy::byColumn(PolicyId::KeepHighest, 'fee', Kind::Number)),
        ];

        self::assertSame([], $first->differsFrom($highest));
        self::assertSame(['1', '2'], $this->keys($first->differsFrom($last)));
        self::assertSame(['1'], $this->keys($first->differsFrom($copies)), 'Of copies the first is kept too; what differs is set aside.');
        self::assertSame([0, 1], [$first->summary->key->undecided['source'], $highest->summary->key->undecided['source']]);
        self::assertSame(['14', '15', '24'], array_map(
            static fn(TriedPolicy $policy): string => (string) $policy->leftOut->source->total(),
            [$first, $last, $copies],
        ), 'What is not compared, of the fees 10, 9, 5 and 5.');
    }

    public function test_says_in_how_many_groups_a_policy_keeps_what_people_chose(): void
    {
        $digest = static fn(string ...$cells): string => ChosenRow::rowDigest(implode(KeyTuple::SEPARATOR, $cells));
        $chosen = static fn(string $key, string $kept, string $other): ChosenRow => new ChosenRow(
            Side::Source,
            [$key],
            ChosenRow::groupDigest([$digest($key, $kept), $digest($key, $other)]),
            $digest($key, $kept),
            'seen on site',
        );
        [$trial] = $this->trial(
            [['1', '10'], ['1', '9'], ['2', '5'], ['2', '6']],
            [['1', '9'], ['2', '5']],
            [$chosen('1', '9', '10'), $chosen('2', '5', '6')],
        );
        $asChosen = static fn(RepeatsPolicy $policy): int => $trial->of(Sides::each(static fn(): RepeatsPolicy => $policy))->asChosen;

        self::assertSame([1, 1, 2, 0], [
            $asChosen(RepeatsPolicy::of(PolicyId::KeepFirst)),
            $asChosen(RepeatsPolicy::of(PolicyId::KeepLast)),
            $asChosen(RepeatsPolicy::byColumn(PolicyId::KeepLowest, 'fee', Kind::Number)),
            $asChosen(RepeatsPolicy::setAside()),
        ]);
        $first = $trial->of(Sides::each(static fn(): RepeatsPolicy => RepeatsPolicy::of(PolicyId::KeepFirst)));
        self::assertSame(2, $first->summary->source->agreed, 'What was chosen is kept, whatever the policy.');
    }

    public function test_rows_that_are_put_aside_come_back_as_they_were(): void
    {
        $aside = new RowsAside('old.csv', ['berth', 'note'], "{$this->workspace->path}/aside");
        $rows = [];
        for ($row = 1; $row <= 3_000; $row++) {
            $rows[] = ["{$row}", str_repeat("Nøkken\n", $row % 200)];
            $aside->add(new \NineTally\Core\Row\RecordPlace(1 + $row % 2, 7 * $row), $rows[$row - 1]);
        }

        self::assertSame($rows, array_map(
            static fn(mixed $row): array => $row instanceof \NineTally\Core\Row\Row ? $row->cells : [],
            iterator_to_array($aside->records(), false),
        ));
        self::assertEquals(new \NineTally\Core\Row\RecordPlace(2, 7 * 2_999), $aside->place(2_999));
    }

    /** @return list<array{string, string}> */
    private function rows(): array
    {
        return array_map(static fn(): array => [(string) mt_rand(1, 40), (string) mt_rand(1, 4)], range(1, mt_rand(20, 70)));
    }

    /**
     * @param  list<string>  $groups
     * @return list<string>
     */
    private function keys(array $groups): array
    {
        return array_values(array_unique(array_map(static fn(string $group): string => PolicyTrial::ofGroup($group)[1], $groups)));
    }

    /** @return list<int> */
    private static function figures(Summary $summary): array
    {
        return [
            $summary->source->agreed, $summary->source->changed, $summary->source->unmatched, $summary->target->unmatched,
            $summary->source->repeated, $summary->target->repeated, $summary->source->kept, $summary->target->notKept,
            $summary->source->prepared, $summary->cells()['changed'],
        ];
    }

    /**
     * @param  array<int, array{string, string}>  $source
     * @param  array<int, array{string, string}>  $target
     */
    private function tally(array $source, array $target, RepeatsPolicy $policy): Summary
    {
        return $this->tallyOf($this->plan($policy), $this->side($source), $this->side($target));
    }

    /**
     * @param  list<array{string, string}>  $source
     * @param  list<array{string, string}>  $target
     * @param  list<ChosenRow>  $chosen
     * @return array{PolicyTrial, int}
     */
    private function trial(array $source, array $target, array $chosen = []): array
    {
        $plan = $this->plan(RepeatsPolicy::setAside(), $chosen);
        $forms = (new CauseCatalogue)->forms;
        $workspace = Workspace::make($this->workspace->path);
        [$rows, $keys] = (new RepeatedKeyRows($plan, new Sides($this->side($source), $this->side($target)), $workspace->path, $forms))
            ->found(static fn(int $bytes) => null);
        $fee = new StakeColumn(1, new Reading(Kind::Number));

        return [new PolicyTrial($plan, $rows, $workspace->path, $forms, new Sides($fee, $fee)), $keys];
    }

    /** @param list<ChosenRow> $chosen */
    private function plan(RepeatsPolicy $policy, array $chosen = []): Plan
    {
        $rules = new SideRules(repeats: $policy);

        return new Plan(
            [new KeyColumn('berth', 'berth')],
            [ColumnPair::between('fee', 'fee')],
            source: new SideRules(repeats: $policy, keptRows: $chosen),
            target: $rules,
        );
    }

    /** @param array<int, array{string, string}> $rows */
    private function side(array $rows): \NineTally\Core\Intake\Reader
    {
        return $this->reader(
            "berth,fee\n".implode('', array_map(static fn(array $row): string => implode(',', $row)."\n", $rows)),
            bin2hex(random_bytes(4)).'.csv',
        );
    }
}
