<?php

declare(strict_types=1);

namespace NineTally\Tests\Advice;

use NineTally\Core\Advice\KeyLadder;
use NineTally\Core\Advice\KeyRung;
use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Value\Kind;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** @phpstan-type Readings array{kind: Kind, source: array{dateForms?: list<string>}, target: array{dateForms?: list<string>}} */
final class KeyLadderTest extends TestCase
{
    use TemporaryFiles;

    /**
     * @param  non-empty-list<non-empty-list<string>>  $source
     * @param  list<list<string>>  $target
     * @param  list<array{int, string, int, int}>  $rungs  column, cause, rows that it brings in, rows of the source that then share a key
     * @param  list<string>  $fewest  causes
     */
    #[DataProvider('keys')]
    public function test_says_what_keeps_keys_apart_and_how_many_rows_each_cause_would_bring_in(
        array $source,
        array $target,
        array $rungs,
        array $fewest,
    ): void {
        $ladder = $this->ladder($source, $target);
        $found = $ladder->rungs();
        $base = $ladder->meeting([]);
        $brings = static fn(KeyRung $rung): array => [
            $rung->column,
            $rung->cause,
            $ladder->meeting([$rung])->met - $base->met,
            $ladder->meeting([$rung])->sharing['source'] - $base->sharing['source'],
        ];

        self::assertSame($rungs, array_map($brings, $found));
        $blank = array_filter($source, static fn(array $key): bool => implode('', $key) === '');
        self::assertLessThanOrEqual(count($source) - count($blank), $ladder->meeting($found)->met);
        self::assertSame($fewest, array_map(static fn(KeyRung $rung): string => $rung->cause, $ladder->fewest($found)));
    }

    /**
     * @return iterable<string, array{non-empty-list<non-empty-list<string>>, list<list<string>>, list<array{int, string, int, int}>,
     *     list<string>}>
     */
    public static function keys(): iterable
    {
        yield 'zeros that were lost' => [
            [['00037', 'KB'], ['4', 'LM']],
            [['37', 'KB'], ['4', 'LM']],
            [[0, 'leading-zeros', 1, 0]],
            ['leading-zeros'],
        ];
        yield 'keys in which nothing stands meet none' => [
            [['', ''], ['A ', 'KB']],
            [['', ''], ['A', 'KB']],
            [[0, 'spacing', 1, 0]],
            ['spacing'],
        ];
        yield 'the weaker first, and both where each brings others' => [
            [['A1', 'KB '], ['a2', 'LM'], ['A3', 'N']],
            [['A1', 'KB'], ['A2', 'LM'], ['A3', 'N']],
            [[0, 'case', 1, 0], [1, 'spacing', 1, 0]],
            ['case', 'spacing'],
        ];
        yield 'two that are needed at once' => [[['007', 'kb']], [['7', 'KB']], [[0, 'leading-zeros', 0, 0], [1, 'case', 0, 0]], [
            'leading-zeros', 'case',
        ]];
        yield 'rows that would then share a key' => [
            [['Kb'], ['KB'], ['LM']],
            [['kb'], ['LM']],
            [[0, 'case', 1, 2]],
            ['case'],
        ];
        yield 'nothing of form keeps them apart' => [[['KB'], ['LM']], [['XX'], ['LM']], [], []];
        yield 'all meet' => [[['KB']], [['KB']], [], []];
        yield 'words that tell by themselves which means which' => [
            [['1', 'Jan'], ['2', 'Feb'], ['3', 'May']],
            [['1', 'January'], ['2', 'February'], ['3', 'May']],
            [[1, 'crosswalk', 2, 0]],
            ['crosswalk'],
        ];
        yield 'one number in two writings' => [[['1e3']], [['1000']], [[0, 'number-form', 1, 0]], ['number-form']];
    }

    public function test_a_form_is_declared_with_its_cause(): void
    {
        $ladder = $this->ladder([['03.04.2024']], [['2024-04-03']], [
            [['kind' => Kind::Date, 'source' => ['dateForms' => ['dd.MM.yyyy']], 'target' => []]],
        ]);

        self::assertEquals([new KeyRung(0, 'date-form', ['dateForms' => ['dd.MM.yyyy']], [])], $ladder->rungs());
        self::assertSame(1, $ladder->meeting($ladder->rungs())->oneToOne);
    }

    public function test_of_many_rows_both_sides_of_a_key_are_drawn_or_neither(): void
    {
        $source = $target = [];
        for ($row = 0; $row < 2_000; $row++) {
            $source[] = [sprintf('%06d', $row), 'Quay No. 1'];
            $target[] = [(string) $row, 'QUAY  no. 1'];
        }
        $ladder = $this->ladder($source, $target, [], 10);
        $drawn = $ladder->meeting($ladder->rungs());

        self::assertFalse($ladder->isWhole());
        self::assertEqualsWithDelta(200, $drawn->met, 60);
        self::assertSame([], $ladder->beside($ladder->rungs(), 5));
    }

    public function test_a_row_that_meets_nothing_stands_beside_the_likest(): void
    {
        $ladder = $this->ladder(
            [['Kingfisher Quay', '12'], ['Lock', '1']],
            [['Herons Rest', '9'], ['Kingfishr Quay', '12'], ['Lock', '1']],
        );

        self::assertSame([['source' => ['Kingfisher Quay', '12'], 'target' => ['Kingfishr Quay', '12']]], $ladder->beside([], 5));
    }

    /**
     * @param  non-empty-list<non-empty-list<string>>  $source
     * @param  list<list<string>>  $target
     * @param  array<int, list<Readings>>  $readings
     */
    private function ladder(array $source, array $target, array $readings = [], int $oneIn = 1): KeyLadder
    {
        $columns = array_map(static fn(): array => ['forgives' => [], 'source' => [], 'target' => []], $source[0]);
        $ladder = new KeyLadder($columns, $readings, (new CauseCatalogue)->forms, $this->folder(), $oneIn);
        foreach (['source' => $source, 'target' => $target] as $side => $keys) {
            foreach ($keys as $key) {
                $ladder->see($side, $key);
            }
        }

        return $ladder;
    }
}
