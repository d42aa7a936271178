<?php

declare(strict_types=1);

namespace Tests\Browser;

/** What one person finds another can open; and when both rule on the same pattern, neither overwrites the other unseen. */
final class TwoPeopleReviewTest extends BrowserTestCase
{
    protected function isExpected(string $complaint): bool
    {
        // The second of two rulings is refused, until its author has seen the first.
        return str_contains($complaint, '/rulings') && str_contains($complaint, '409');
    }

    public function test_a_filter_is_drawn_shared_and_ruled_on_by_two(): void
    {
        [$old, $new] = ["basin,berth,holder,fee\n", "basin,berth,owner,fee,loaded\n"];
        foreach (range(1, 40) as $berth) {
            $basin = ['KB', 'LM'][$berth % 2];
            $old .= "{$basin},{$berth},Holder {$berth},12\n";
            $new .= "{$basin},{$berth},".($berth <= 30 ? 'HOLDER' : 'Holder')." {$berth},".($berth > 28 ? '' : '12').",t\n";
        }
        $this->tallied($old, $new);

        $this->signIn('ruth.osei@wherrymoor.example');
        $this->press('Moorings');
        $this->see('Every row that does not agree');
        $this->press('fee: 12 blanked cells');
        $this->see('12 cells');
        $this->seeFindings(12);
        $this->type('basin is exactly', "LM\n");
        $this->see('6 cells');
        $this->meetsNoBarrier();
        $address = $this->browser->getCurrentURL();
        $ruth = $this->browser;

        $this->openBrowser();
        $this->signIn('tove.lindqvist@wherrymoor.example');
        $this->see('Moorings');
        $this->browser->get($address);
        $this->see('6 cells');
        $this->seeFindings(6);
        $this->rule('D', 'wrong basin');
        $this->see('Ruled defect on 6 findings.');

        $this->browser = $ruth;
        $this->rule('E', 'both basins are meant');
        $this->see('Tove Lindqvist ruled on this tally meanwhile: defect on 6 findings');
        $this->see('Defect');
        // With nothing said, Enter takes the reason that was said last.
        $this->keys('E');
        $this->see('Enter takes the last reason.');
        $this->visible('//*[@aria-label="Reason"]', 'the reason')->sendKeys("\n");
        $this->see('Ruled expected on 6 findings.');
        $this->press('Rulings so far');
        $this->see('Tove Lindqvist');
        $this->see('Ruth Osei');
    }
}
