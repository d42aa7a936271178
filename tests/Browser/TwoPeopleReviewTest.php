<?php

declare(strict_types=1);

namespace Tests\Browser;

use App\Models\Role;

/** What one person finds another can open; and when both rule on the same pattern, neither overwrites the other unseen. */
final class TwoPeopleReviewTest extends BrowserTestCase
{
    protected function isExpected(string $complaint): bool
    {
        // The second of two rulings is refused, until its author has seen the first.
        return (str_contains($complaint, '/rulings') && str_contains($complaint, '409')) ||
            // So is a draft that somebody else has changed; both are joined then.
            (str_contains($complaint, '/plan') && str_contains($complaint, '412'));
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
        // Whoever comes without a filter begins with what weighs most.
        $this->see('Which value became which');
        $this->press('All differences');
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
        $this->see('Tove Lindqvist ruled defect on 6 findings of tally 1.');
        $this->see('Defect');
        $this->rule('E', 'both basins are meant');
        $this->see('Ruled expected on 6 findings.');
        $this->press('Rulings so far');
        $this->see('Tove Lindqvist');
        $this->see('Ruth Osei');
    }

    public function test_two_work_on_one_plan_and_both_see_what_the_other_does(): void
    {
        $this->analyst->refresh();
        $second = $this->person('Jonas Havelund');
        $this->migration->memberships()->create(['user_id' => $second->id, 'role' => Role::Analyst]);
        $this->tallied();
        $this->signIn('ruth.osei@wherrymoor.example');
        $this->press('Moorings');
        $this->station('Match');
        $this->see('draft after plan 1, saved');
        $ruth = $this->browser;

        $jonas = $this->openBrowser();
        $this->signIn('jonas.havelund@wherrymoor.example');
        $this->press('Moorings');
        $this->station('Match');
        $this->press('Rules of holder: nothing');
        $this->visible("//label[starts-with(normalize-space(.), 'capitals')]", 'capitals to forgive')->click();
        $this->see('draft after plan 1, saved');

        // Ruth has not looked since: hers is joined with his, or, where the page had learned of it, made on top of it.
        $this->browser = $ruth;
        $this->press('Rules of fee: nothing');
        $this->choose('Read as', 'number');
        $this->see('Jonas Havelund changed the plan');
        $this->see('capitals');
        $this->until(
            fn(): bool => data_get($this->dataset->draft()->first()?->document, 'columnPairs.0.forgives') === ['case']
                && data_get($this->dataset->draft()->first()?->document, 'columnPairs.1.kind') === 'number',
            'both changes in the draft',
        );

        $this->browser = $jonas;
        $this->see('Ruth Osei changed the plan.');
        $this->station('Review');
        $this->see('11 of 11 open');
        $this->browser = $ruth;
        $this->station('Review');
        $this->press('Show the 1 missing rows');
        $this->ruleOn('NQ,8', 'D', 'lost at the lock');
        $this->browser = $jonas;
        $this->see('Ruth Osei ruled defect on 1 finding of tally 1.');
        $this->see('10 of 11 open');
    }
}
