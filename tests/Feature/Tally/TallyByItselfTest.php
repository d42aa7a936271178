<?php

declare(strict_types=1);

namespace Tests\Feature\Tally;

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

    public function test_all_datasets_of_a_migration_are_tallied_and_those_that_cannot_say_why(): void
    {
        $this->tallied();
        $this->migration->datasets()->create(['name' => 'Empty']);

        $this->api('POST', "/migrations/{$this->migration->id}/runs")
            ->assertAccepted()
            ->assertJson([
                'started' => [['dataset' => 'Moorings']],
                'notStarted' => [['dataset' => 'Empty', 'why' => 'The source side has no delivery yet. Deliver both sides first.']],
            ]);
        self::assertSame(2, $this->dataset->tallies()->max('number'));
    }
}
