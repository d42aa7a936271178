<?php

declare(strict_types=1);

namespace Tests\Browser;

/** From a finding that is a defect to a correction, to the tally that says whether it was done. */
final class RuthMendsDefectsTest extends BrowserTestCase
{
    public function test_a_defect_becomes_a_correction_and_the_next_tally_says_what_became_of_it(): void
    {
        $this->tallied();
        $this->signIn('ruth.osei@wherrymoor.example');
        $this->press('Moorings');
        $this->station('Review');
        $this->press('Show the 1 missing rows');
        $this->ruleOn('NQ,8', 'D', 'lost at the lock');
        $this->see('Ruled defect on 1 finding.');

        $this->press('Defects');
        $this->see('1 defect, 0 gone from the data');
        $this->see('lost at the lock');
        $this->type('Who mends ruling 1', "Harbour IT\n");
        $this->meetsNoBarrier();
        $this->press('Make corrections of 1 defect');
        $this->see('Corrections 1: 1 line from tally 1, 1 with something uncertain; no newer tally yet.');
        $this->press('Show the lines');
        $this->see('basin NQ, berth 8, owner Hester, fee 3.10');
        $this->see('nothing is known for loaded');

        $this->actingAs($this->analyst);
        $this->deliver('target', self::NEW."NQ,8,Hester,3.10,t\n", 'new.csv');
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $this->see('gone in tally 2');
        $this->see('by tally 2: 1 done, 0 not done, 0 done otherwise');
    }
}
