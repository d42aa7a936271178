<?php

declare(strict_types=1);

namespace NineTally\Tests\Likeness;

use NineTally\Core\Likeness\DistinctValues;
use NineTally\Core\Likeness\FoldedText;
use NineTally\Core\Likeness\LikenessColumn;
use NineTally\Core\Likeness\LikenessKind;
use NineTally\Core\Likeness\NearValues;
use PHPUnit\Framework\TestCase;

/** Distinct values of one side find those of the other that are most like them, many to one. */
final class NearValuesTest extends TestCase
{
    private const TARGET = [
        'Kestrel Broad' => 40,
        'Lime Mere' => 31,
        'Otter Staithe' => 22,
        'Netherquay' => 17,
        'Sluice Road' => 9,
        'Heron Row' => 4,
        '12' => 3,
    ];

    public function test_each_value_finds_what_it_means_and_several_may_mean_one(): void
    {
        $near = NearValues::of(
            DistinctValues::counted([
                'Kestrel Broad' => 12,
                'Kestrel Broda' => 7,
                'KESTREL BROAD' => 5,
                'Broad, Kestrel' => 5,
                'Lime Mere W.' => 2,
                'Quarry' => 1,
                '12' => 2,
            ]),
            DistinctValues::counted(self::TARGET),
            [new LikenessColumn(LikenessKind::Words, 1)],
        );

        self::assertSame(2, $near->same);
        self::assertSame(
            ['Kestrel Broda', 'Broad, Kestrel', 'KESTREL BROAD', 'Lime Mere W.', 'Quarry'],
            array_column($near->values, 'value'),
        );
        $best = array_map(static fn(array $value): ?string => $value['candidates'][0]['value'] ?? null, $near->values);
        self::assertSame(['Kestrel Broad', 'Kestrel Broad', 'Kestrel Broad', 'Lime Mere', null], $best);
        self::assertSame([40, 40, 40, 31], array_map(
            static fn(array $value): int => $value['candidates'][0]['rows'] ?? 0,
            array_slice($near->values, 0, 4),
        ));
        self::assertSame([], array_filter($near->values, NearValues::hasRival(...)));
    }

    public function test_two_that_are_close_are_rivals_and_words_that_mean_the_same_count(): void
    {
        $near = NearValues::of(
            DistinctValues::counted(['Lock Street 1' => 3]),
            DistinctValues::counted(['Lock Street 2' => 1, 'Lock Street 3' => 1, 'Far Bank' => 1, 'Weir Lane' => 1]),
            [new LikenessColumn(LikenessKind::Code, 1)],
        );
        self::assertTrue(NearValues::hasRival($near->values[0]));
        $equal = NearValues::of(
            DistinctValues::counted(['Lock St' => 3]),
            DistinctValues::counted(['Lock Street' => 1, 'Lock Lane' => 1]),
            [new LikenessColumn(LikenessKind::Words, 1)],
            new FoldedText(['street' => 'st']),
        );
        self::assertSame(['Lock Street', 1.0], [$equal->values[0]['candidates'][0]['value'], $equal->values[0]['candidates'][0]['score']]);
    }

    public function test_what_stands_beside_them_tells_which_of_two_is_meant(): void
    {
        [$source, $target] = [new DistinctValues, new DistinctValues];
        foreach ([['A. Quill', 'Lime Mere'], ['A. Quill', 'Lime Mere'], ['A. Quill', 'Heron Row']] as [$name, $basin]) {
            $source->see($name, [], [$basin]);
        }
        foreach (['Anna Quill' => 'Otter Staithe', 'Albert Quill' => 'Lime Mear', 'Mary Reed' => 'Netherquay'] as $name => $basin) {
            $target->see($name, [], [$basin]);
        }
        $near = NearValues::of($source, $target, [
            new LikenessColumn(LikenessKind::Words, 2),
            new LikenessColumn(LikenessKind::Words, 1),
        ]);

        self::assertSame(['Lime Mere'], $near->values[0]['beside']);
        self::assertSame(
            [['Albert Quill', ['Lime Mear']], ['Anna Quill', ['Otter Staithe']]],
            array_map(static fn(array $one): array => [$one['value'], $one['beside']], array_slice($near->values[0]['candidates'], 0, 2)),
        );
    }

    public function test_within_what_must_be_equal_none_is_missed_for_others_that_are_more_alike(): void
    {
        [$source, $target] = [new DistinctValues, new DistinctValues];
        $source->see('Kestrel Broad', ['south'], []);
        foreach (range(1, 100) as $number) {
            $target->see(md5((string) $number), ['south'], []);
            $target->see($number < 9 ? "Kestrel Broad {$number}" : md5("north {$number}"), ['north'], []);
        }
        $target->see('Kestrl Brode', ['south'], []);
        $columns = [new LikenessColumn(LikenessKind::Code, 1)];

        self::assertNotContains('Kestrl Brode', array_column(NearValues::of($source, $target, $columns)->values[0]['candidates'], 'value'));
        self::assertSame(
            ['Kestrl Brode'],
            array_column(NearValues::of($source, $target, $columns, isWithin: true)->values[0]['candidates'], 'value'),
        );
    }
}
