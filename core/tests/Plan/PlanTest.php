<?php

declare(strict_types=1);

namespace NineTally\Tests\Plan;

use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\UnusablePlan;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\DuplicateColumn;
use NineTally\Core\Row\UnknownColumn;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class PlanTest extends TestCase
{
    public function test_pairs_equal_names_and_mapped_ones_and_leaves_out_what_was_said(): void
    {
        $plan = Plan::pairing(
            Columns::named('old.csv', ['basin', 'berth', 'holder_name', 'fee', 'clerk']),
            Columns::named('new.csv', ['basin', 'berth_no', 'holder', 'fee', 'clerk', 'loaded_at']),
            ['basin', 'berth'],
            ['berth' => 'berth_no', 'holder_name' => 'holder'],
            ['clerk', 'loaded_at'],
        );

        self::assertSame(
            [['basin', 'basin'], ['berth', 'berth_no']],
            array_map(static fn($column): array => [$column->source, $column->target], $plan->key),
        );
        self::assertSame(
            [['holder_name', 'holder'], ['fee', 'fee']],
            array_map(static fn($pair): array => [$pair->source, $pair->target], $plan->columnPairs),
        );
        self::assertSame(['source' => ['clerk'], 'target' => ['clerk', 'loaded_at']], $plan->leftOut);
    }

    public function test_comes_back_from_its_own_json_with_the_same_digest(): void
    {
        $columns = Columns::named('old.csv', ['basin', 'berth', 'fee']);
        $plan = Plan::pairing($columns, $columns, ['basin', 'berth']);

        self::assertSame($plan->digest(), Plan::fromJson($plan->canonicalJson())->digest());
        self::assertSame(
            $plan->digest(),
            Plan::fromJson((string) json_encode(array_reverse($plan->toArray()), JSON_PRETTY_PRINT))->digest(),
        );
    }

    #[DataProvider('unusable')]
    public function test_says_where_a_document_is_not_a_plan(string $json, string $pointer): void
    {
        try {
            Plan::fromJson($json);
            self::fail('The document was taken.');
        } catch (UnusablePlan $unusable) {
            self::assertContains($pointer, array_map(static fn($problem): string => $problem->pointer, $unusable->problems));
        }
    }

    /** @return iterable<string, array{string, string}> */
    public static function unusable(): iterable
    {
        yield 'no JSON' => ['{"key":', ''];
        yield 'an unknown property' => [
            '{"formatVersion":1,"key":[{"source":"a","target":"a"}],"columnPairs":[],"leftOut":{"source":[],"target":[]},"password":"x"}',
            '',
        ];
        yield 'no key' => ['{"formatVersion":1,"key":[],"columnPairs":[],"leftOut":{"source":[],"target":[]}}', '/key'];
        yield 'a format of the future' => [
            '{"formatVersion":4,"key":[{"source":"a","target":"a"}],"columnPairs":[],"leftOut":{"source":[],"target":[]}}',
            '/formatVersion',
        ];
    }

    public function test_names_every_column_that_the_deliveries_do_not_have(): void
    {
        $plan = Plan::pairing(Columns::named('a', ['basin', 'fee']), Columns::named('a', ['basin', 'fee']), ['basin']);

        try {
            $plan->mustFit(Columns::named('old.csv', ['basin']), Columns::named('new.csv', ['quay', 'fee']));
            self::fail('The plan was taken.');
        } catch (UnusablePlan $unusable) {
            self::assertSame(
                ['/columnPairs/0/source', '/key/0/target'],
                array_map(static fn($problem): string => $problem->pointer, $unusable->problems),
            );
            self::assertStringContainsString('"new.csv" has no column "basin". Its columns are: quay, fee.', $unusable->getMessage());
        }
    }

    public function test_a_name_that_stands_twice_is_told_apart_by_its_place_or_left_out_and_never_guessed(): void
    {
        $source = Columns::named('old.csv', ['basin', 'note', 'note']);
        $target = Columns::named('new.csv', ['basin', 'note']);

        self::assertCount(0, Plan::pairing($source, $target, ['basin'], leaveOut: ['note'])->columnPairs);
        self::assertSame(
            ['note (column 3)'],
            array_column(Plan::pairing($source, $target, ['basin'], ['note (column 3)' => 'note'])->columnPairs, 'source'),
        );
        self::assertSame(
            ['note (column 2)', 'note (column 3)'],
            array_column(Plan::pairing($source, $source, ['basin'])->columnPairs, 'source'),
            'Equal headers pair place by place.',
        );
        $this->expectException(DuplicateColumn::class);
        $this->expectExceptionMessage(
            'names column "note" 2 times, so nobody can say which one is meant. Say which by its place, as "note (column 2)" or "note '.
                '(column 3)", or leave "note" out.',
        );
        Plan::pairing($source, $target, ['basin']);
    }

    public function test_a_column_stands_once_in_the_key(): void
    {
        $columns = Columns::named('old.csv', ['basin', 'berth']);

        $this->expectException(UnusablePlan::class);
        $this->expectExceptionMessage('"basin" stands twice in the key');
        Plan::pairing($columns, $columns, ['basin', 'basin']);
    }

    public function test_mapping_an_unknown_column_is_an_error(): void
    {
        $columns = Columns::named('old.csv', ['basin']);

        $this->expectException(UnknownColumn::class);
        Plan::pairing($columns, $columns, ['basin'], ['bassin' => 'basin']);
    }

    public function test_asking_for_a_repeated_name_says_where_it_stands(): void
    {
        $this->expectException(DuplicateColumn::class);
        $this->expectExceptionMessage('"note (column 1)" or "note (column 3) (column 3)"');
        Columns::named('old.csv', ['note', 'note (column 3)', 'note'])->positionOf('note');
    }

    public function test_canonical_json_orders_names_by_utf_16_and_refuses_floats(): void
    {
        // RFC 8785, section 3.2.3: U+1F600 begins with the code unit D83D and comes before U+FB33.
        self::assertSame("{\"1\":1,\"€\":2,\"😀\":3,\"\u{FB33}\":4}", CanonicalJson::of(["\u{FB33}" => 4, '😀' => 3, '€' => 2, '1' => 1]));
        self::assertSame('{"a":"line\\nend/","b":[]}', CanonicalJson::of(['b' => [], 'a' => "line\nend/"]));
        $this->expectException(\InvalidArgumentException::class);
        CanonicalJson::of(['fee' => 0.1]);
    }
}
