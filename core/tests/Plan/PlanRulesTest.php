<?php

declare(strict_types=1);

namespace NineTally\Tests\Plan;

use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\PlanProblems;
use NineTally\Core\Plan\Problem;
use NineTally\Core\Plan\UnusablePlan;
use NineTally\Core\Repeats\PolicyId;
use NineTally\Core\Row\Columns;
use NineTally\Core\Value\Kind;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What a plan of format 2 can say. */
final class PlanRulesTest extends TestCase
{
    use PlanOfEverything;

    public function test_comes_back_from_its_own_json_whole(): void
    {
        $plan = Plan::fromJson((string) json_encode(self::WHOLE));

        self::assertSame($plan->canonicalJson(), Plan::fromJson($plan->canonicalJson())->canonicalJson());
        self::assertEquals($plan, Plan::fromJson($plan->canonicalJson()));
        self::assertSame([Kind::Number, Kind::Text], array_map(static fn($pair): Kind => $pair->kind, $plan->columnPairs));
        self::assertSame(PolicyId::KeepHighest, $plan->source->repeats->id);
        // A pair that was flagged, as plans did once, means the columns of both sides.
        self::assertSame(['source' => ['basin', 'clerk', 'fee'], 'target' => ['charge']], $plan->columnRules->sensitive);
        self::assertArrayNotHasKey('sensitive', $plan->columnPairs[0]->toArray());
        self::assertSame(['Active', 'Seven'], array_values($plan->columnPairs[1]->crosswalk));
    }

    public function test_a_column_declares_otherwise_than_its_side(): void
    {
        $plan = Plan::fromJson((string) json_encode(self::WHOLE));

        self::assertSame(['-'], $plan->source->reading('fee', Kind::Number)->blankTokens);
        self::assertSame(['NULL'], $plan->source->reading('other', Kind::Text)->blankTokens);
        self::assertSame(
            ['12345e-1', null],
            array_map(static fn(string $fee): ?string => $plan->source->reading('fee', Kind::Number)->number($fee)?->canonical(), [
                '1234,5',
                '1.234,5',
            ]),
            'A group mark is not guessed.',
        );
        self::assertTrue($plan->target->reading('x', Kind::YesNo)->yesOrNo('JA'));
        self::assertNull($plan->target->reading('x', Kind::YesNo)->yesOrNo('yes'));
    }

    /**
     * @param  array<string, mixed>  $plan
     * @param  list<string>  $places
     */
    #[DataProvider('plansThatContradictThemselves')]
    public function test_what_contradicts_itself_is_refused_with_its_places(array $plan, array $places): void
    {
        try {
            $problems = (new PlanProblems(
                Plan::fromJson(
                    (string) json_encode(
                        $plan + ['formatVersion' => 3, 'key' => [['source' => 'a', 'target' => 'a']], 'columnPairs' => []],
                    ),
                ),
            ))->all();
        } catch (UnusablePlan $unusable) {
            $problems = $unusable->problems;
        }

        self::assertSame($places, array_map(static fn(Problem $problem): string => $problem->pointer, $problems));
    }

    /** @return iterable<string, array{array<string, mixed>, list<string>}> */
    public static function plansThatContradictThemselves(): iterable
    {
        $pair = static fn(array $rules): array => [
            'columnPairs' => [['id' => 'pair-000000000000', 'source' => 'b', 'target' => 'b', ...$rules]],
        ];
        $entries = [['source' => 'x', 'target' => 'a'], ['source' => 'y', 'target' => 'a'], ['source' => 'x', 'target' => 'b']];
        $zone = static fn(array $source, array $target): array => $pair(['kind' => 'date-time']) + [
            'sides' => ['source' => $source, 'target' => $target],
        ];
        yield 'two entries for one value' => [$pair(['crosswalk' => $entries]), ['/columnPairs/0/crosswalk/2']];
        yield 'two entries of a step' => [
            ['sides' => ['target' => ['preparation' => [['id' => 's', 'kind' => 'crosswalk', 'column' => 'b', 'entries' => $entries]]]]],
            ['/sides/target/preparation/0/entries/2'],
        ];
        yield 'one word for yes and no' => [['sides' => ['source' => ['yes' => ['ja', 'X'], 'no' => ['nee', 'x']]]], ['/sides/source/yes']];
        yield 'an instant against a time on a clock' => [
            $zone(['zone' => 'Europe/Berlin'], ['dateForms' => ['dd.MM.yyyy HH:mm']]),
            ['/columnPairs/0/kind'],
        ];
        yield 'an offset in the form against none' => [
            $zone(['dateForms' => ['dd.MM.yyyy HH:mm']], ['dateForms' => ['yyyy-MM-dd HH:mmXXX']]),
            ['/columnPairs/0/kind'],
        ];
        yield 'two zones can be compared' => [
            $zone(['zone' => 'Europe/Berlin'], ['zone' => 'Europe/London', 'dateForms' => ['dd.MM.yyyy HH:mm']]),
            [],
        ];
        yield 'where no form is declared the values tell' => [$zone(['zone' => 'Europe/Berlin'], ['decimalMark' => '.']), []];
        yield 'a second column where no first one decides' => [
            ['sides' => ['source' => ['repeats' => ['policy' => 'keep-first', 'then' => ['column' => 'b']]]]],
            ['/sides/source/repeats/then'],
        ];
        $own = static fn(string $policy, array ...$differ): array => ['sides' => ['source' => ['repeats' => [
            'policy' => $policy,
            'own' => array_map(static fn(array $columns): array => ['differ' => $columns, 'policy' => 'keep-first'], $differ),
        ]]]];
        yield 'two policies for the same differing columns' => [$own('set-aside', ['b', 'a'], ['a', 'b']), ['/sides/source/repeats/own/1']];
        yield 'a policy of its own where rows are paired in order' => [$own('pair-in-order', ['b']), ['/sides/source/repeats/own/0']];
        yield 'exceptions of copies where there are none' => [
            ['sides' => ['source' => ['repeats' => ['policy' => 'keep-first', 'except' => ['b']]]]],
            ['/sides/source/repeats/except'],
        ];
    }

    public function test_a_column_that_a_step_takes_away_may_declare_how_it_is_read_until_then(): void
    {
        $columns = Columns::named('x.csv', ['basin', 'sum']);
        $side = [
            'columns' => ['fee' => ['decimalMark' => ',']],
            'preparation' => [
                [
                    'id' => 's',
                    'kind' => 'group-rows',
                    'by' => ['basin'],
                    'totals' => [['total' => 'sum', 'column' => 'fee', 'into' => 'sum']],
                ],
            ],
        ];
        $plan = static fn(array $side): Plan => Plan::fromJson(
            (string) json_encode([
                'formatVersion' => 3,
                'key' => [['source' => 'basin', 'target' => 'basin']],
                'columnPairs' => [],
                'sides' => ['source' => $side],
            ]),
        );

        $plan($side)->mustFit($columns, $columns);
        $this->expectExceptionMessage('has no column "fee"');
        $plan(array_diff_key($side, ['preparation' => true]))->mustFit($columns, $columns);
    }

    public function test_what_a_key_forgives_is_part_of_what_a_row_is_known_by(): void
    {
        $with = Plan::fromJson((string) json_encode(self::WHOLE));
        $without = Plan::fromJson((string) json_encode(['key' => [['source' => 'basin', 'target' => 'basin']]] + self::WHOLE));

        self::assertNotSame($with->keyDefinition(), $without->keyDefinition());
        self::assertSame('[["basin","basin"]]', $without->keyDefinition());
    }

    /** @param array<string, mixed> $change */
    #[DataProvider('contradictions')]
    public function test_says_where_its_rules_contradict_each_other(array $change, string $pointer, string $says): void
    {
        $columns = Columns::named('x.csv', ['basin', 'fee', 'status', 'seen', 'charge', 'state', 'clerk']);
        try {
            Plan::fromJson((string) json_encode($change + self::WHOLE))->mustFit($columns, $columns);
            self::fail('The plan was taken.');
        } catch (UnusablePlan $unusable) {
            $found = array_filter(
                $unusable->problems,
                static fn(Problem $problem): bool => $problem->pointer === $pointer && str_contains($problem->message, $says),
            );
            self::assertNotSame([], $found, json_encode($unusable->problems, JSON_PRETTY_PRINT) ?: '');
        }
    }

    /** @return iterable<string, array{array<string, mixed>, string, string}> */
    public static function contradictions(): iterable
    {
        $pair = static fn(array $more): array => [
            'columnPairs' => [['id' => 'pair-000000000001', 'source' => 'fee', 'target' => 'charge'] + $more],
        ];
        yield 'a tolerance of numbers on text' => [
            $pair(['tolerance' => ['by' => 'absolute', 'most' => '1']]),
            '/columnPairs/0/tolerance',
            'needs a pair of kind number',
        ];
        yield 'a tolerance in days on numbers' => [
            $pair(['kind' => 'number', 'tolerance' => ['by' => 'days', 'most' => '1']]),
            '/columnPairs/0/tolerance',
            'needs a pair of kind date',
        ];
        yield 'a rounding of text' => [$pair(['rounding' => ['places' => 0, 'mode' => 'cut']]), '/columnPairs/0/rounding', 'kind number'];
        yield 'a bridge of too many cells' => [
            ['bridges' => [['source' => ['KB', '1'], 'target' => ['KB']]]],
            '/bridges/0/source',
            'the key has 1',
        ];
        yield 'a refused bridge of too many cells' => [
            ['refusedBridges' => [['source' => ['KB'], 'target' => ['KB', '1']]]],
            '/refusedBridges/0/target',
            'the key has 1',
        ];
        yield 'rows paired in order on one side' => [
            ['sides' => ['source' => ['repeats' => ['policy' => 'pair-in-order']]]],
            '/sides',
            'both sides',
        ];
        yield 'a policy without its column' => [
            ['sides' => ['target' => ['repeats' => ['policy' => 'keep-lowest']]]],
            '/sides/target/repeats/column',
            'needs the column',
        ];
        yield 'a policy with a column that it does not look at' => [
            ['sides' => ['target' => ['repeats' => ['policy' => 'keep-last', 'column' => 'fee']]]],
            '/sides/target/repeats/column',
            'looks at no column',
        ];
        yield 'a column of a policy that is not there' => [
            ['sides' => ['target' => ['repeats' => ['policy' => 'keep-lowest', 'column' => 'scene']]]],
            '/sides/target/repeats/column',
            'has no column "scene"',
        ];
        yield 'a declared column that is not there' => [
            ['sides' => ['source' => ['columns' => ['pay/able' => ['blankTokens' => ['-']]]]]],
            '/sides/source/columns/pay~1able',
            'has no column "pay/able"',
        ];
        yield 'no time zone' => [['sides' => ['source' => ['zone' => 'Wherrymoor/Quay']]], '/sides/source/zone', 'is no time zone'];
        yield 'a form without a century' => [
            ['sides' => ['source' => ['dateForms' => ['yyyy-MM-dd', 'dd/MM/yy']]]],
            '/sides/source/dateForms/1',
            'the first year that two digits can mean',
        ];
        yield 'one mark for decimals and groups' => [
            ['sides' => ['source' => ['decimalMark' => ',', 'groupMark' => ',']]],
            '/sides/source/groupMark',
            'cannot both',
        ];
        yield 'two currencies' => [
            $pair(['kind' => 'number']) + ['sides' => ['source' => ['currency' => '£'], 'target' => ['currency' => 'EUR']]],
            '/columnPairs/0/kind',
            'nothing is converted',
        ];
        yield 'a cause of value that is to be forgiven' => [
            $pair(['forgives' => ['truncated']]),
            '/columnPairs/0/forgives/0',
            'Column pair 1 has a value that is none of those',
        ];
        yield 'a step that lacks what it needs' => [
            [
                'sides' => [
                    'source' => [
                        'preparation' => [
                            ['id' => 's', 'kind' => 'fill-blanks'],
                            ['id' => 't', 'kind' => 'columns-into-rows', 'columns' => ['fee']],
                        ],
                    ],
                ],
            ],
            '/sides/source/preparation/1',
            'Step 2 of the source lacks names into, values into.',
        ];
        yield 'what no plan knows' => [
            ['sides' => ['target' => ['columns' => ['fee' => ['dateForm' => 'x']]]]],
            '/sides/target/columns/fee',
            'How the target writes fee has what no plan knows: date form.',
        ];
        yield 'a pair twice' => [
            [
                'columnPairs' => [
                    ['id' => 'pair-000000000001', 'source' => 'fee', 'target' => 'charge'],
                    ['id' => 'pair-000000000002', 'source' => 'fee', 'target' => 'state'],
                ],
            ],
            '/columnPairs/1/source',
            'stands twice',
        ];
    }
}
