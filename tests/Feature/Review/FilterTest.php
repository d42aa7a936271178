<?php

declare(strict_types=1);

namespace Tests\Feature\Review;

use App\Models\Ruling;
use App\Models\Tally;
use App\Rulings\FindingSet\CancellableSearch;
use App\Rulings\FindingSet\Filter;
use App\Rulings\FindingSet\FilterBitmaps;
use App\Rulings\FindingSet\FilterCounts;
use App\Rulings\FindingSet\FilteredFindings;
use App\Rulings\FindingSet\GroupCounts;
use App\Rulings\FindingSet\MembersOfFilter;
use App\Rulings\Storage\EffectiveRulingBlocks;
use App\Rulings\Storage\GroupPostingReader;
use Illuminate\Support\Facades\DB;
use NineTally\Core\Ruling\GroupPostingBlock;
use Symfony\Component\Process\Process;
use Tests\TestCase;

/** Filters of findings: what is in them, how long they are, and what is done with all that they mean. */
final class FilterTest extends TestCase
{
    /** Law: whatever is filtered by, the list is what one gets by looking at each finding; entered anywhere, and counted. */
    public function test_a_filter_means_what_its_terms_say_of_each_finding(): void
    {
        $tally = $this->register();
        $this->rule($tally, ['scope' => 'cell', 'target' => '4', 'decision' => 'defect']);
        $this->rule($tally, ['scope' => 'class', 'target' => 'extra', 'decision' => 'expected']);
        $cells = $this->all($tally, 'of=cells');
        $rows = $this->all($tally, '');
        self::assertCount(420, $cells);
        self::assertCount(328, $rows);
        $text = static fn(array $finding, string $name): string => is_string($finding[$name] ?? null) ? $finding[$name] : '';
        $cause = static fn(array $cell): string => match (true) {
            $cell['source'] === '' => 'filled',
            mb_strtoupper($text($cell, 'source')) === $cell['target'] => 'case',
            default => 'other',
        };
        $keyOf = static fn(array $finding): array => str_getcsv($text($finding, 'key'), ',', '"', '');

        foreach (
            [
                ['cause=case', $cells, static fn(array $cell): bool => $cause($cell) === 'case'],
                ['cellClass=filled', $cells, static fn(array $cell): bool => $cause($cell) === 'filled'],
                ['source=', $cells, static fn(array $cell): bool => $cell['source'] === ''],
                ['source=%20Anna%20', $cells, static fn(array $cell): bool => $cell['source'] === ' Anna '],
                ['of=cells&key=KB&keyColumn=1', $cells, static fn(array $cell): bool => $keyOf($cell)[0] === 'KB'],
                [
                    'of=cells&key=a%2C%22b&keyColumn=1&ruling=open',
                    $cells,
                    static fn(array $cell): bool => $keyOf($cell)[0] === 'a,"b' && $cell['decision'] === 'open',
                ],
                [
                    'of=cells&text=tHoRnøy',
                    $cells,
                    static fn(array $cell): bool => str_contains(
                        mb_strtolower("{$text($cell, 'source')} {$text($cell, 'target')} {$text($cell, 'key')}"),
                        'thornøy',
                    ),
                ],
                [
                    'of=cells&text=1',
                    $cells,
                    static fn(array $cell): bool => str_contains(
                        "{$text($cell, 'source')} {$text($cell, 'target')} {$text($cell, 'key')}",
                        '1',
                    ),
                ],
                ['of=cells&text=Ø', $cells, static fn(array $cell): bool => str_contains(mb_strtolower($text($cell, 'source')), 'ø')],
                ['text=A,%2213', $rows, static fn(array $row): bool => false],
                ['text=lm,1', $rows, static fn(array $row): bool => str_starts_with($text($row, 'key'), 'LM,1')],
                ['of=cells&ruling=defect', $cells, static fn(array $cell): bool => $cell['decision'] === 'defect'],
                ['key=7&keyColumn=2', $rows, static fn(array $row): bool => $keyOf($row)[1] === '7'],
                ['ruling=expected', $rows, static fn(array $row): bool => $row['class'] === 'extra'],
                ['ruling=defect', $rows, static fn(array $row): bool => $row['sequence'] === $cells[3]['rowSequence']],
                [
                    'class=missing&key=LM&keyColumn=1',
                    $rows,
                    static fn(array $row): bool => $row['class'] === 'missing' && $keyOf($row)[0] === 'LM',
                ],
                ['text=%25', $rows, static fn(array $row): bool => false],
                ['text=%22b', $rows, static fn(array $row): bool => $keyOf($row)[0] === 'a,"b'],
            ]
            as [$filter, $findings, $means]
        ) {
            $expected = array_column(array_filter($findings, $means), 'sequence');
            // The first page stands there before anybody has counted.
            self::assertSame(
                array_slice($expected, 0, 7),
                array_column($this->objects($this->api('GET', "/tallies/{$tally->id}/findings?{$filter}&limit=7"), 'items'), 'sequence'),
                $filter,
            );
            $this->api('GET', "/tallies/{$tally->id}/findings/count?{$filter}")
                ->assertOk()
                ->assertExactJson(['total' => count($expected)]);
            self::assertSame($expected, array_column($this->all($tally, $filter), 'sequence'), $filter);
            // From the last place backwards: a list can be entered anywhere, without reading what is before.
            foreach (array_slice(array_reverse(range(1, max(1, count($expected)), 13)), 0, 3) as $from) {
                $page = $this->api('GET', "/tallies/{$tally->id}/findings?{$filter}&from={$from}&limit=40");
                self::assertSame(
                    array_slice($expected, $from - 1, 40),
                    array_column($this->objects($page, 'items'), 'sequence'),
                    "{$filter} from {$from}",
                );
            }
        }
        self::assertSame(
            ['thornøy'],
            array_values(
                array_unique(
                    array_map(
                        static fn(string $line): string => (string) preg_replace('/.*(thornøy).*/isu', '$1', mb_strtolower($line)),
                        array_slice(
                            explode(
                                "\n",
                                trim($this->get("/api/v1/tallies/{$tally->id}/findings/taken?of=cells&text=thornøy")->streamedContent()),
                            ),
                            1,
                        ),
                    ),
                ),
            ),
        );
    }

    /** Law: what is told from the groups alone is what stands in the list, over several stretches of it. */
    public function test_a_list_by_groups_and_rulings_is_entered_anywhere_without_looking_at_its_findings(): void
    {
        $tally = $this->register(3_300);
        foreach (
            [
                ['scope' => 'pattern', 'target' => '1'],
                ['scope' => 'filter', 'filter' => ['of' => 'cells', 'key' => 'KB', 'keyColumn' => 1], 'decision' => 'ask'],
                ['scope' => 'filter', 'filter' => ['of' => 'rows', 'key' => 'LM', 'keyColumn' => 1], 'decision' => 'defect'],
                ['scope' => 'class', 'target' => 'extra'],
                ['scope' => 'cell', 'target' => '2001', 'decision' => 'open'],
            ]
            as $act
        ) {
            $acts[] = $this->rule($tally, ['decision' => 'expected', ...$act]);
        }
        $findings = app(FilteredFindings::class);
        $meant = static fn(int $few): FilterBitmaps => new FilterBitmaps(
            $findings,
            app(EffectiveRulingBlocks::class),
            app(GroupPostingReader::class),
            $few,
        );
        $counts = new FilterCounts(
            DB::connection(),
            $findings,
            new GroupCounts($meant(0), app(GroupPostingReader::class)),
            app(CancellableSearch::class),
            all: 0,
        );
        $members = static function (Filter $filter, int $few) use ($tally, $findings, $meant): array {
            $places = [];
            foreach ((new MembersOfFilter(DB::connection(), $findings, $meant($few)))->of($tally, $filter) as [$group, $block, $some]) {
                $places["{$group} {$block}"] = $some->places;
            }
            ksort($places);

            return $places;
        };
        $lists = array_map(static fn(string $ruling): array => ['ruling' => $ruling], ['expected', 'ask', 'defect', 'open']);
        $lists = [
            ...$lists,
            [],
            ['act' => $acts[0]],
            ['act' => $acts[1]],
            ['act' => $acts[2], 'ruling' => 'defect'],
            ['act' => $acts[2], 'ruling' => 'ask'],
            ['key' => 'KB', 'keyColumn' => 1],
            ['key' => 'LM', 'keyColumn' => 1, 'ruling' => 'expected'],
        ];
        $within = [
            'cells' => [[], ['pattern' => 2], ['cause' => 'case'], ['cellClass' => 'filled']],
            'rows' => [[], ['class' => 'missing'], ['class' => 'changed']],
        ];
        $entered = 0;
        foreach ($within as $of => $groups) {
            foreach ($groups as $group) {
                foreach ($lists as $terms) {
                    $filter = Filter::from(['of' => $of, ...$group, ...$terms]);
                    $places = $findings
                        ->query($tally, $filter)
                        ->orderBy($findings->order($filter))
                        ->selectRaw("{$findings->order($filter)} AS place")
                        ->pluck('place')
                        ->all();
                    $found = $counts->found($tally, $filter);
                    self::assertSame(count($places), $found->findings, (string) json_encode($filter->toArray()));
                    self::assertSame($members($filter, PHP_INT_MAX), $members($filter, 0), 'A ruling covers the same, told or looked at.');
                    for ($from = 1; $from <= count($places); $from += 611) {
                        self::assertSame(
                            array_slice($places, $from - 1, 250),
                            $counts->stretch($tally, $filter, $found, $from, 250),
                            "{$from} of ".json_encode($filter->toArray()),
                        );
                        $entered += $from > 1_000 ? 1 : 0;
                    }
                }
            }
        }
        self::assertGreaterThan(15, $entered);
    }

    public function test_a_list_by_rulings_that_was_counted_is_counted_anew_after_an_act(): void
    {
        $tally = $this->register();
        $open = fn(): int => $this->number(
            $this->api('GET', "/tallies/{$tally->id}/findings/count?of=cells&ruling=open&key=KB&keyColumn=1"),
            'total',
        );
        [$before, $again] = [$open(), $open()];
        $act = $this->rule($tally, [
            'scope' => 'cell',
            'target' => (string) $this->number(
                $this->api('GET', "/tallies/{$tally->id}/findings?of=cells&ruling=open&key=KB&keyColumn=1&limit=1"),
                'items.0.sequence',
            ),
            'decision' => 'defect',
        ]);
        $after = $open();
        $this->api('POST', "/rulings/{$act}/undo")->assertCreated();

        self::assertSame([$before, $before - 1, $before], [$again, $after, $open()]);
        self::assertSame($before, count($this->all($tally, 'of=cells&ruling=open&key=KB&keyColumn=1')));
    }

    public function test_where_the_findings_of_groups_stand_is_read_part_by_part(): void
    {
        $tally = $this->tallied();
        DB::connection('owner')->table('group_places')->where('tally_id', $tally->id)->delete();
        $places = static fn(int ...$findings): string => '\x'.
            bin2hex(pack('v*', ...array_pad($findings, GroupPostingBlock::STRETCHES, 0)));
        foreach (
            [
                [0, 'pattern:1', [2, 1]],
                [0, 'pattern:2', [4]],
                [2, 'pattern:1', [5]],
                [2, 'class:extra', [7]],
                [3, 'pattern:2', [1]],
                [3, 'pattern:1', [3]],
            ]
            as [$part, $group, $findings]
        ) {
            DB::connection('owner')
                ->table('group_places')
                ->insert(['tally_id' => $tally->id, 'part' => $part, 'group' => $group, 'findings' => $places(...$findings), 'rows' => '']);
        }

        $read = [];
        foreach (app(GroupPostingReader::class)->read($tally->id, ['pattern:1', 'pattern:2'], withRows: false) as $part => $ofGroups) {
            $read[$part] = array_map(static fn(array $place): array => [$place[0]->total(), $place[1]], $ofGroups);
        }

        // Of each group how many findings stand there, and how many in parts before.
        self::assertEquals(
            [
                0 => ['pattern:1' => [3, 0], 'pattern:2' => [4, 0]],
                2 => ['pattern:1' => [5, 3]],
                3 => ['pattern:1' => [3, 8], 'pattern:2' => [1, 4]],
            ],
            $read,
        );
    }

    public function test_rows_are_found_by_a_part_of_their_key_that_no_index_could_hold(): void
    {
        $long = implode('', array_map(static fn(int $part): string => hash('sha256', "berth {$part}"), range(1, 90)));
        $tally = $this->tallied(
            "basin,berth,holder,fee\nKB,\"{$long}\"\"\",Anna,1\nLM,{$long},Anna,1\n",
            "basin,berth,owner,fee,loaded\nKB,\"{$long}\"\"\",ANNA,1,t\nLM,{$long}x,ANNA,1,t\n",
        );

        foreach (
            ["{$long}\"" => ['changed'], $long => ['missing'], "{$long}x" => ['extra'], substr($long, 0, 100) => []]
            as $berth => $classes
        ) {
            self::assertSame($classes, array_column($this->all($tally, 'keyColumn=2&key='.urlencode($berth)), 'class'));
        }
    }

    public function test_a_search_that_its_page_has_left_is_stopped(): void
    {
        $tally = $this->register();
        [$left, $others] = [$this->searching('00000000000000aa'), $this->searching('00000000000000bb')];

        $this->withHeader('X-Page', '00000000000000aa')->api('GET', "/tallies/{$tally->id}/findings/count?of=cells&text=osei")->assertOk();
        $left->wait();
        self::assertSame('57014', $left->getOutput());
        self::assertTrue($others->isRunning());
        $others->stop(0);
    }

    /** A search that goes on in another connection, which is named as those of a page are. */
    private function searching(string $page): Process
    {
        /** @var array{host: string, port: string, database: string, username: string, password: string} $settings */
        $settings = config('database.connections.application');
        $search = new Process([
            PHP_BINARY,
            '-r',
            'try { (new PDO($argv[1], $argv[2], $argv[3]))->exec("SELECT pg_sleep(60)"); } catch (PDOException $stopped) { echo '.
                '$stopped->getCode(); }',
            '--',
            "pgsql:host={$settings['host']};port={$settings['port']};dbname={$settings['database']};application_name='search {$page} ".
                "0123456789abcdef'",
            $settings['username'],
            $settings['password'],
        ]);
        $search->start();
        $isThere = static fn(): bool => DB::table('pg_stat_activity')
            ->where('application_name', "search {$page} 0123456789abcdef")
            ->where('state', 'active')
            ->exists();
        for ($time = 0; $time < 100 && ! $isThere(); $time++) {
            usleep(50_000);
        }

        return $search;
    }

    public function test_a_ruling_on_a_filter_covers_what_was_in_it_then_and_can_be_undone(): void
    {
        $tally = $this->register();
        $single = $this->rule($tally, ['scope' => 'cell', 'target' => '1', 'decision' => 'defect', 'reason' => 'seen by eye']);
        $act = $this->rule($tally, [
            'scope' => 'filter',
            'filter' => ['cause' => 'case', 'ruling' => 'open'],
            'decision' => 'expected',
            'reason' => 'capitals are agreed',
            'ticket' => ' WM-18 ',
            'askedId' => $this->owner->id,
        ]);

        $covered = count(array_filter($this->all($tally, 'cause=case'), static fn(array $cell): bool => $cell['decision'] === 'expected'));
        self::assertGreaterThan(100, $covered);
        $this->api('GET', "/tallies/{$tally->id}/rulings")->assertJson([
            'items' => [
                [
                    'id' => $act,
                    'scope' => 'filter',
                    'findings' => $covered,
                    'ticket' => 'WM-18',
                    'asked' => 'Tove Lindqvist',
                    'filter' => ['of' => 'cells', 'cause' => 'case', 'ruling' => 'open'],
                ],
            ],
        ]);
        self::assertSame(
            $covered,
            array_sum(
                array_column(array_column($this->objects($this->api('GET', "/tallies/{$tally->id}"), 'patterns'), 'standing'), 'expected'),
            ),
        );
        self::assertCount($covered, $this->all($tally, "of=cells&act={$act}"));
        self::assertSame(
            [],
            array_filter($this->all($tally, 'cause=case&ruling=open'), static fn(array $cell): bool => $cell['sequence'] !== 1),
        );
        $this->api('POST', "/tallies/{$tally->id}/rulings", [
            'scope' => 'filter',
            'filter' => ['text' => 'not there'],
            'decision' => 'ask',
            'reason' => '',
            'seenAct' => $act,
        ])
            ->assertConflict()
            ->assertJson(['code' => 'nothing-to-rule-on']);

        $this->api('POST', "/rulings/{$act}/undo")->assertCreated();
        self::assertSame([$single], array_values(array_filter(array_column($this->all($tally, 'of=cells'), 'rulingId'))));
    }

    public function test_a_ruling_on_chosen_rows_covers_the_cells_of_those_that_changed(): void
    {
        $tally = $this->register();
        $rows = $this->all($tally, '');
        $changed = $rows[0];
        $missing = array_values(array_filter($rows, static fn(array $row): bool => $row['class'] === 'missing'))[0];

        $this->rule($tally, [
            'scope' => 'selection',
            'filter' => ['of' => 'rows', 'sequences' => [$changed['sequence'], $missing['sequence']]],
            'decision' => 'ask',
        ]);

        $asked = array_column(
            array_filter($this->all($tally, 'of=cells'), static fn(array $cell): bool => $cell['decision'] === 'ask'),
            'rowSequence',
        );
        self::assertSame(array_fill(0, is_int($changed['differingCells']) ? $changed['differingCells'] : 0, $changed['sequence']), $asked);
        self::assertSame([$changed['sequence'], $missing['sequence']], array_column($this->all($tally, 'ruling=ask'), 'sequence'));
        self::assertSame(
            ['ask'],
            array_column(
                array_filter($this->all($tally, 'class=missing'), static fn(array $row): bool => $row['sequence'] === $missing['sequence']),
                'decision',
            ),
        );
    }

    public function test_further_columns_of_the_row_stand_beside_a_finding(): void
    {
        $tally = $this->register();

        $this->api(
            'GET',
            "/tallies/{$tally->id}/findings?cellClass=filled&limit=1&beside[]=holder&beside[]=loaded&beside[]=nothing",
        )->assertJson(['items' => [['key' => 'LM,4', 'beside' => ['Ezekiel Thornøy', 't', null]]]]);
        $this->api('GET', "/tallies/{$tally->id}/findings?class=extra&limit=1&beside[]=holder")->assertJson([
            'items' => [['key' => 'KB,t1', 'beside' => ['']]],
        ]);
        $this->api(
            'GET',
            "/tallies/{$tally->id}/findings?".implode('&', array_map(static fn(int $nth): string => "beside[]=c{$nth}", range(1, 5))),
        )->assertUnprocessable();
    }

    public function test_a_filter_is_kept_under_a_name_for_everybody(): void
    {
        $this->register();
        $path = "/datasets/{$this->dataset->id}/kept-filters";
        $kept = $this->number(
            $this->api('POST', $path, [
                'name' => 'Blank holders of KB',
                'filter' => ['source' => '', 'key' => 'KB', 'keyColumn' => 1],
            ])->assertCreated(),
            'id',
        );
        $this->actingAs($this->owner);

        $this->api('GET', $path)
            ->assertOk()
            ->assertJson([
                'items' => [
                    [
                        'name' => 'Blank holders of KB',
                        'filter' => ['of' => 'cells', 'source' => '', 'key' => 'KB', 'keyColumn' => 1],
                        'by' => 'Ruth Osei',
                    ],
                ],
            ]);
        $this->api('POST', $path, ['name' => 'Blank holders of KB', 'filter' => []])
            ->assertConflict()
            ->assertJson(['code' => 'name-taken']);
        $this->api('POST', $path, ['name' => 'Wrong', 'filter' => ['class' => 'lost']])->assertUnprocessable();
        $this->api('DELETE', "/kept-filters/{$kept}")->assertNoContent();
        $this->api('GET', $path)->assertJsonCount(0, 'items');
    }

    /** Rows on both sides, of which many differ in one cell or two; some more stand on one side only. */
    private function register(int $rows = 300): Tally
    {
        [$source, $target] = ["basin,berth,holder,fee\n", "basin,berth,owner,fee,loaded\n"];
        for ($row = 1; $row <= $rows; $row++) {
            $key = [['KB', 'LM', '"a,""b"'][$row % 3], (string) $row];
            $holder = [' Anna ', 'Ezekiel Thornøy', 'Osei'][intdiv($row, 3) % 3];
            $source .= implode(',', [...$key, $holder, $row % 4 === 0 ? '' : '1'])."\n";
            $target .=
                implode(',', [
                    ...$key,
                    $row % 2 === 0 ? mb_strtoupper($holder) : $holder.'x',
                    $row % 4 === 0 || $row % 5 === 0 ? '2' : '1',
                    't',
                ])."\n";
        }
        for ($row = 1; $row <= 14; $row++) {
            $source .= "LM,s{$row},,\n";
            $target .= "KB,t{$row},,,\n";
        }

        return $this->tallied($source, $target);
    }

    /** @return list<array<string, mixed>> every finding of a filter, page by page */
    private function all(Tally $tally, string $filter): array
    {
        $findings = [];
        $from = 1;
        while ($from !== null) {
            $page = $this->api('GET', "/tallies/{$tally->id}/findings?{$filter}&from={$from}&limit=150")->assertOk();
            $findings = [...$findings, ...$this->objects($page, 'items')];
            $from = $page->json('next');
            self::assertTrue($from === null || is_int($from));
        }

        return $findings;
    }

    /** @param array<string, mixed> $act */
    private function rule(Tally $tally, array $act): int
    {
        return $this->number(
            $this->api('POST', "/tallies/{$tally->id}/rulings", [
                'reason' => '',
                'seenAct' => Ruling::newestOn($tally),
                ...$act,
            ])->assertCreated(),
            'id',
        );
    }
}
