<?php

declare(strict_types=1);

namespace Tests\Browser;

use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\Migration;
use App\Models\Tally;
use App\Models\User;
use Database\Demo\Holders;
use Database\Demo\Inspections;
use Illuminate\Support\Facades\Artisan;
use Tests\TestCase;

/** What is there after the start command. Without a browser, but on the demo that the stories after it go on with. */
final class RuthStartsWithTheDemoTest extends TestCase
{
    use OnTheDemo;

    protected function setUp(): void
    {
        parent::setUp();
        $this->loadDemo();
    }

    public function test_the_board_is_alive_at_first_sight_and_loading_again_changes_nothing(): void
    {
        $this->actingAs(User::query()->where('email', 'analyst@wherrymoor.example')->firstOrFail());
        $board = $this->api('GET', '/migrations/'.Migration::query()->firstOrFail()->id.'/board')->assertOk();

        self::assertSame(
            ['Agents', 'Basins', 'Berth charges', 'Holders', 'Inspections', 'Length bands', 'Licences', 'Moorings', 'Vessels'],
            array_column($this->objects($board, 'datasets'), 'name'),
        );
        $board->assertJson([
            'datasets' => [
                ['keyColumns' => ['agent_no'], 'tally' => ['rows' => ['source' => ['delivered' => 90, 'missing' => 1]]]],
                ['keyColumns' => [], 'tally' => null],
                [
                    'keyColumns' => ['basin', 'band', 'season'],
                    'tally' => ['rows' => ['source' => ['delivered' => 146, 'missing' => 4, 'changed' => 22], 'target' => ['extra' => 3]]],
                ],
                ['keyColumns' => ['holder_no'], 'tally' => ['rows' => ['source' => ['missing' => 67], 'target' => ['extra' => 64]]]],
                [
                    'keyColumns' => ['index_no', 'inspected_on'],
                    'tally' => ['rows' => ['source' => ['missing' => 0, 'changed' => 2, 'repeated' => 285]]],
                ],
                ['keyColumns' => []],
                [
                    'keyColumns' => ['licence_no', 'season'],
                    'tally' => [
                        'rows' => ['source' => ['delivered' => 59_997, 'missing' => 12, 'changed' => 364], 'target' => ['extra' => 3]],
                    ],
                ],
                [
                    'keyColumns' => ['basin', 'berth'],
                    'tally' => ['rows' => ['source' => ['refused' => 2, 'missing' => 214, 'repeated' => 32, 'unkeyed' => 3]]],
                ],
                ['keyColumns' => ['index_no'], 'tally' => ['rows' => ['source' => ['delivered' => 300, 'changed' => 21, 'missing' => 0]]]],
            ],
        ]);
        $before = [Delivery::query()->count(), Tally::query()->count(), User::query()->count()];

        Artisan::call('nine-tally:demo');

        self::assertSame([16, 7, 5], $before);
        self::assertSame($before, [Delivery::query()->count(), Tally::query()->count(), User::query()->count()]);
    }

    public function test_holders_who_were_given_other_numbers_are_found_and_nobody_else(): void
    {
        $this->actingAs(User::query()->where('email', 'analyst@wherrymoor.example')->firstOrFail());
        $tally = Dataset::query()->where('name', Holders::NAME)->firstOrFail()->latestTally();
        $look = $this->api('POST', "/tallies/{$tally?->id}/near-keys", ['order' => 'source'])->assertOk();
        $found = [];
        foreach ($this->objects($look, 'found.items') as $pair) {
            [$old, $new] = [data_get($pair, 'source.key'), data_get($pair, 'target.key')];
            $found[is_string($old) ? $old : ''] = $new;
        }

        self::assertSame(array_slice(Holders::truth(), 0, 50), $found);
        self::assertSame(count(Holders::truth()), $look->json('found.counts.pairs'));
    }

    public function test_inspections_that_stand_twice_are_told_by_why_and_the_right_policy_stands_out(): void
    {
        $this->actingAs(User::query()->where('email', 'analyst@wherrymoor.example')->firstOrFail());
        $dataset = Dataset::query()->where('name', Inspections::NAME)->firstOrFail();
        $truth = Inspections::truth();
        $twice = $truth['block'] + $truth['corrected'] + $truth['byForm'] + $truth['lost'];

        $look = $this->api('POST', "/datasets/{$dataset->id}/repeat-looks", ['except' => ['source' => ['loaded_at']]])->assertOk();
        $look->assertJson(['found' => [
            'figures' => [
                'source' => [
                    'rows' => $truth['rows']['source'], 'groups' => $twice, 'beyondFirst' => $twice, 'conflicts' => $truth['corrected'],
                    'byForm' => $truth['byForm'], 'onlyHere' => $truth['lost'],
                ],
                'target' => ['rows' => $truth['rows']['target'], 'groups' => $truth['copied'], 'copies' => $truth['copied']],
            ],
            'patterns' => [
                ['columns' => ['loaded_at'], 'groups' => $truth['block'] + $truth['lost']],
                ['columns' => ['result', 'fee', 'loaded_at'], 'groups' => $truth['corrected']],
                ['columns' => ['index_no', 'loaded_at'], 'groups' => $truth['byForm']],
                ['columns' => [], 'groups' => $truth['copied']],
            ],
        ]]);
        $look->assertJson(['found' => ['origins' => ['source' => [['kind' => 'block', 'rows' => $truth['block']]]]]]);

        $both = static fn(array $policy): array => ['source' => $policy, 'target' => ['policy' => 'collapse-copies']];
        $trial = $this->api('POST', "/datasets/{$dataset->id}/policy-trials", ['policies' => [
            $both(['policy' => 'keep-first']),
            $both(['policy' => 'keep-highest', 'column' => 'loaded_at', 'kind' => 'date-time']),
        ]])->assertOk();
        $met = $twice - $truth['lost'] + $truth['copied'];
        $trial->assertJson(['found' => [
            'keys' => $twice + $truth['copied'],
            'tried' => [
                ['agreed' => $met - $truth['corrected'], 'changed' => $truth['corrected'], 'source' => ['unmatched' => $truth['lost']]],
                ['agreed' => $met, 'changed' => 0, 'source' => ['unmatched' => $truth['lost'], 'undecided' => 0]],
            ],
            'beside' => ['differ' => $twice],
        ]]);
    }

    public function test_passwords_are_made_at_installation_and_printed_for_the_terminal_alone(): void
    {
        Artisan::call('nine-tally:sign-ins');
        preg_match_all('/^  (\S+@wherrymoor\.example)\s+(\S{16})   \(/m', Artisan::output(), $found);

        self::assertCount(5, array_unique($found[2]));
        self::assertSame(0600, fileperms(storage_path('work/demo-sign-ins')) & 0777);
        // The analyst has another by now.
        $this->api('POST', '/session', ['email' => $found[1][1], 'password' => $found[2][1]])->assertOk();
    }
}
