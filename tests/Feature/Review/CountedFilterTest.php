<?php

declare(strict_types=1);

namespace Tests\Feature\Review;

use App\Rulings\Storage\GroupPostingReader;
use Illuminate\Support\Facades\DB;
use NineTally\Core\Ruling\GroupPostingBlock;
use Symfony\Component\Process\Process;
use Tests\TestCase;

/** How long a filtered list is, and where its findings stand. */
final class CountedFilterTest extends TestCase
{
    use FilteredRegister;

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
}
