<?php

declare(strict_types=1);

namespace NineTally\Tests\Profile;

use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Matching\KeyForm;
use NineTally\Core\Profile\Repeats\LookedGroup;
use NineTally\Core\Profile\Repeats\LookedSide;
use NineTally\Core\Profile\Repeats\RepeatGroup;
use NineTally\Core\Profile\Repeats\RepeatLook;
use NineTally\Core\Profile\Repeats\RepeatsFound;
use NineTally\Core\Profile\Repeats\StakeColumn;
use NineTally\Core\Row\RecordPlace;
use NineTally\Core\Value\DeclaredReading;
use NineTally\Core\Value\Kind;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\TestCase;

/** Repeats are looked at: nothing is taken away, and every row is in one figure. */
final class RepeatLookTest extends TestCase
{
    use TemporaryFiles;

    private const COLUMNS = ['basin', 'berth', 'fee', 'loaded'];

    public function test_copies_conflicts_and_what_repeats_on_one_side_alone_are_told_apart(): void
    {
        $found = $this->look(
            [
                ['KB', '1', '10', 'mon'],
                ['KB', '1', '10', 'mon'],
                ['KB', '1', '10', 'tue'],
                ['LM', '2', '20', 'mon'],
                ['LM', '2', '25', 'mon'],
                ['NQ', '3', '30', 'mon'],
                ['', '', '1', 'mon'],
                ['OT', '9', '1', 'mon'],
                ['OT', '9', '1', 'mon'],
            ],
            [['KB', '1', '10', 'x'], ['LM', '2', '20', 'x'], ['NQ', '3', '30', 'x'], ['NQ', '3', '30', 'y'], ['QQ', '1', '1', 'x']],
            except: ['loaded'],
        );

        self::assertSame([
            'rows' => 9, 'blank' => 1, 'combinations' => 4, 'groups' => 3, 'inGroups' => 7, 'beyondFirst' => 4, 'copies' => 2,
            'conflicts' => 1, 'byForm' => 0, 'onlyHere' => 1,
        ], $found->figures()['source']);
        self::assertSame([
            'rows' => 5, 'blank' => 0, 'combinations' => 4, 'groups' => 1, 'inGroups' => 2, 'beyondFirst' => 1, 'copies' => 1,
            'conflicts' => 0, 'byForm' => 0, 'onlyHere' => 0,
        ], $found->figures()['target']);
        self::assertSame(
            [['source', [], 1, 2], ['source', ['fee'], 1, 2], ['source', ['loaded'], 1, 3], ['target', ['loaded'], 1, 2]],
            array_map(
                static fn(array $pattern): array => [$pattern['side'], $pattern['columns'], $pattern['groups'], $pattern['rows']],
                $found->patterns(),
            ),
        );
        self::assertSame(['KB', 'LM', 'NQ', 'OT'], $this->firsts($found->largest()['size']));
        self::assertSame(['KB', 'LM', 'NQ'], $this->firsts($found->largest()['differing']));
        self::assertSame(['OT'], $this->firsts($found->largest()['one side']));
    }

    public function test_what_repeats_add_to_a_total_is_exact_and_puts_groups_in_order(): void
    {
        $found = $this->look(
            [['KB', '1', '0.1', 'a'], ['KB', '1', '0.2', 'a'], ['KB', '1', 'free', 'a'], ['LM', '2', '5', 'a'], ['LM', '2', '-7.25', 'a'],
                ['NQ', '3', '100', 'a']],
            [['KB', '1', '1', 'a']],
            stake: true,
        );

        self::assertSame([
            'source' => ['all' => '98.05', 'beyondFirst' => '-7.05', 'without' => '105.10'],
            'target' => ['all' => '1', 'beyondFirst' => '0', 'without' => '1'],
        ], $found->stakes());
        self::assertSame(['LM', 'KB'], $this->firsts($found->largest()['stake']));
        self::assertNull($this->look([['KB', '1', '1', 'a']], [])->stakes());
    }

    public function test_rows_that_repeat_only_because_form_makes_no_difference_show_how_they_are_written(): void
    {
        $rows = [['KB', '1', '10', 'a'], ['kb ', '01', '10', 'a'], ['LM', '2', '1', 'a']];

        self::assertSame(0, $this->look($rows, [])->figures()['source']['groups']);
        $found = $this->look($rows, [], ['case', 'spacing', 'leading-zeros']);
        self::assertSame(
            [1, 1, 1],
            array_values(array_intersect_key($found->figures()['source'], array_flip(['groups', 'copies', 'byForm']))),
        );
        self::assertSame(['basin', 'berth'], $found->patterns()[0]['columns']);
    }

    public function test_a_block_that_stands_twice_is_told_from_rows_here_and_there_and_from_parts_that_overlap(): void
    {
        $rows = array_map(static fn(int $row): array => ['KB', (string) $row, '1', 'a'], range(1, 100));
        $twice = [...$rows, ...array_slice($rows, 20, 50), $rows[3], $rows[90]];
        $origins = $this->look($twice, [])->origins()['source'];

        self::assertSame(
            ['kind' => 'block', 'rows' => 50, 'part' => 1, 'from' => 102, 'to' => 151, 'ofPart' => 1, 'ofFrom' => 22, 'ofTo' => 71],
            $origins[0],
        );
        self::assertSame(['scattered', 2], [$origins[1]['kind'], $origins[1]['rows']]);

        $overlap = $this->look(
            [...$rows, ...array_reverse(array_slice($rows, 80))],
            [],
            lines: static fn(int $row): RecordPlace => $row < 100 ? new RecordPlace(1, $row + 2) : new RecordPlace(2, $row - 98),
        )->origins()['source'];
        self::assertSame(
            [['kind' => 'part', 'rows' => 20, 'part' => 2, 'from' => 2, 'to' => 21, 'ofPart' => 1, 'ofFrom' => 82, 'ofTo' => 101]],
            $overlap,
        );
    }

    public function test_every_row_is_in_one_figure_however_they_repeat(): void
    {
        mt_srand(9);
        for ($round = 0; $round < 40; $round++) {
            $sides = array_map(
                static fn(): array => array_map(
                    static fn(): array => [
                        ['', 'KB', 'LM'][mt_rand(0, 2)],
                        (string) ['', 1, 2, 3][mt_rand(0, 3)],
                        (string) mt_rand(0, 1),
                        'a',
                    ],
                    array_fill(0, mt_rand(0, 30), 0),
                ),
                ['source' => 0, 'target' => 0],
            );
            $found = $this->look(...$sides);
            foreach ($found->figures() as $side => $figures) {
                self::assertCount($figures['rows'], $sides[$side]);
                self::assertSame($figures['rows'], $figures['blank'] + $figures['combinations'] + $figures['beyondFirst']);
                self::assertSame($figures['inGroups'], $figures['groups'] + $figures['beyondFirst']);
                self::assertSame($figures['groups'], $figures['copies'] + $figures['conflicts']);
                $patterns = array_filter($found->patterns(), static fn(array $pattern): bool => $pattern['side'] === $side);
                self::assertSame($figures['groups'], array_sum(array_column($patterns, 'groups')));
                self::assertSame($figures['beyondFirst'], array_sum(array_column($found->origins()[$side], 'rows')));
            }
        }
    }

    /**
     * @param  list<list<string>>  $source
     * @param  list<list<string>>  $target
     * @param  list<string>  $forgives
     * @param  list<string>  $except
     * @param  (\Closure(int): RecordPlace)|null  $lines
     */
    private function look(
        array $source,
        array $target,
        array $forgives = [],
        array $except = [],
        ?\Closure $lines = null,
        bool $stake = false,
    ): RepeatsFound {
        $lines ??= static fn(int $row): RecordPlace => new RecordPlace(1, $row + 2);
        $side = new LookedSide(
            self::COLUMNS,
            [0, 1],
            new KeyForm(array_fill(0, 2, DeclaredReading::of([], Kind::Text)), [$forgives, $forgives], (new CauseCatalogue)->forms),
            array_map(static fn(string $name): int => (int) array_search($name, self::COLUMNS, true), $except),
            $stake ? new StakeColumn(2, DeclaredReading::of([], Kind::Number)) : null,
        );
        $look = new RepeatLook(['source' => $side, 'target' => $side], $this->folder());
        foreach (['source' => $source, 'target' => $target] as $name => $rows) {
            foreach ($rows as $row => $cells) {
                $look->see($name, $lines($row)->packed(), $cells);
            }
        }

        return $look->found();
    }

    /**
     * @param  list<RepeatGroup>  $groups
     * @return list<string> the first cell of each
     */
    private function firsts(array $groups): array
    {
        return array_map(static function (RepeatGroup $group): string {
            $of = array_filter($group->sides(), static fn(LookedGroup $side): bool => $side->shown !== []);

            return reset($of) === false ? '' : reset($of)->shown[0][0];
        }, $groups);
    }
}
