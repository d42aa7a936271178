<?php

declare(strict_types=1);

namespace Tests\Feature\Tally;

use App\Models\Run;
use Tests\TestCase;

/** Tallies that nobody starts one by one. */
final class TallyByItselfTest extends TestCase
{
    public function test_a_new_delivery_is_tallied_by_itself_where_the_dataset_says_so(): void
    {
        $this->tallied();
        $this->deliver('target', self::NEW.'PW,1,x,1,t'."\n");
        self::assertSame(1, $this->dataset->tallies()->max('number'));
        $this->api('PUT', "/datasets/{$this->dataset->id}/runs-on-delivery", ['runsOnDelivery' => true])->assertNoContent();
        $this->deliver('target', self::NEW.'PW,2,x,1,t'."\n");
        self::assertSame(2, $this->dataset->tallies()->max('number'));
        // A delivery that does not fit the plan is entered all the same.
        $this->deliver('target', "quay\n1\n");
        self::assertSame(
            [2, 4],
            [$this->dataset->tallies()->max('number'), $this->dataset->deliveries()->where('side', 'target')->max('number')],
        );
        $this->actingAs($this->owner)
            ->api('PUT', "/datasets/{$this->dataset->id}/runs-on-delivery", ['runsOnDelivery' => false])
            ->assertForbidden();
    }

    public function test_of_all_datasets_those_are_tallied_in_which_something_changed_and_the_others_say_why_not(): void
    {
        $this->tallied();
        $this->migration->datasets()->create(['name' => 'Empty']);
        $all = "/migrations/{$this->migration->id}/runs";
        $notStarted = [['dataset' => 'Empty', 'why' => 'The source side has no delivery yet. Deliver both sides first.']];

        $unchanged = [
            'started' => [],
            'unchanged' => [['dataset' => 'Moorings', 'tally' => 1]],
            'notStarted' => $notStarted,
            'waiting' => [],
        ];
        $this->api('POST', $all)->assertAccepted()->assertExactJson($unchanged);

        $this->deliver('target', self::NEW, 'new.csv');
        $this->api('POST', $all)->assertJson(['started' => [['dataset' => 'Moorings']], 'unchanged' => []]);
        self::assertSame(2, $this->dataset->tallies()->max('number'));
        $this->api('POST', $all, ['name' => 'Rehearsal 2'])->assertJson(['started' => [['dataset' => 'Moorings']], 'unchanged' => []]);
        self::assertSame(3, $this->dataset->tallies()->max('number'));
    }

    public function test_a_run_is_made_on_chosen_deliveries_and_again_as_it_was(): void
    {
        $this->tallied();
        $this->deliver('target', "basin,berth,owner,fee,loaded\n", 'empty.csv');
        $runs = "/datasets/{$this->dataset->id}/runs";
        $this->api('POST', $runs, ['sourceDelivery' => 1, 'targetDelivery' => 3])
            ->assertConflict()
            ->assertJson(['detail' => 'The target side has no delivery 3. Deliver shows which there are, under "See all deliveries".']);
        $this->api('POST', $runs, ['targetDelivery' => 1])->assertCreated();
        $again = $this->dataset->latestTally() ?? self::fail('There is no second tally.');
        self::assertSame(1, $again->summary['madeOf']['targetDelivery']);
        self::assertSame(1, $again->summary['rows']['source']['missing']);

        $run = $this->dataset->latestRun() ?? self::fail('There is no run.');
        $this->api('POST', "/runs/{$run->id}/retry")->assertConflict();
        Run::query()->whereKey($run->id)->update(['state' => 'failed', 'name' => 'Rehearsal 2']);
        $this->api('POST', "/runs/{$run->id}/retry")->assertCreated();
        $this->api('GET', "/tallies/{$this->dataset->latestTally()?->id}")
            ->assertJson(['number' => 3, 'targetDelivery' => 1, 'name' => 'Rehearsal 2', 'rows' => $again->summary['rows']]);
    }

    public function test_one_rehearsal_is_held_against_another_over_all_datasets(): void
    {
        $first = $this->tallied();
        $this->api('PUT', "/tallies/{$first->id}/name", ['name' => 'Rehearsal 1', 'remark' => 'without the wharves'])->assertNoContent();
        $this->deliver('target', self::OLD, 'new.csv');
        $this->match([['source' => 'holder', 'target' => 'holder'], ['source' => 'fee', 'target' => 'fee']]);
        $this->api('POST', "/migrations/{$this->migration->id}/runs", ['name' => 'Rehearsal 2'])->assertAccepted();
        $moorings = $this->dataset;
        $this->dataset = $this->migration->datasets()->create(['name' => 'Vessels']);
        $this->tallied();
        $between = fn(string $terms): \Illuminate\Testing\TestResponse => $this->api(
            'GET',
            "/migrations/{$this->migration->id}/rehearsals{$terms}",
        );

        $between('?earlier=Rehearsal 1&later=Rehearsal 2')->assertJson([
            'names' => [['name' => 'Rehearsal 2', 'tallies' => 1], ['name' => 'Rehearsal 1', 'tallies' => 1]],
            'datasets' => [
                ['id' => $moorings->id, 'verdict' => 'better', 'earlier' => ['number' => 1, 'findings' => 11], 'later' => ['number' => 2]],
            ],
        ])->assertJsonCount(1, 'datasets');
        $between('?earlier=Rehearsal 2&later=Rehearsal 1')->assertJson(['datasets' => [['verdict' => 'worse']]]);
        $between('')->assertJson(['datasets' => [['verdict' => 'better'], ['dataset' => 'Vessels', 'earlier' => null, 'verdict' => null]]]);
        $this->actingAs($this->owner)->api('PUT', "/tallies/{$first->id}/name", ['name' => '', 'remark' => ''])->assertForbidden();
    }
}
