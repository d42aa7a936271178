<?php

declare(strict_types=1);

namespace Tests\Browser;

/** From a total that differs to the rows that make it differ, and to a ruling on them. */
final class RuthProvesTheTotalsTest extends BrowserTestCase
{
    public function test_a_total_is_chosen_tallied_and_its_difference_ruled_on(): void
    {
        $this->tallied();
        $this->signIn('ruth.osei@wherrymoor.example');
        $this->press('Moorings');
        $this->station('Prove');
        $this->see('No total was taken with this tally');
        $this->press('Choose totals');
        $this->see('Number of rows by basin');
        $this->press('Number of rows by basin');
        $this->visible('//ul[@aria-label="Totals of the plan"]//*[contains(., "Number of rows by basin")]', 'the total in the plan');
        $this->browser->navigate()->refresh();
        $this->see('1 total of the plan will be taken with the next tally');

        $this->actingAs($this->analyst);
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $this->browser->navigate()->refresh();
        $this->see('Which rows make');
        $this->meetsNoBarrier();
        $this->see('The shares add up to the difference exactly.');
        $this->press('1 row missing');
        $this->ruleOn('NQ,8', 'D', 'lost at the lock');
        $this->see('Ruled defect on 1 finding.');
    }
}
