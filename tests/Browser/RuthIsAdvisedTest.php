<?php

declare(strict_types=1);

namespace Tests\Browser;

/** Two unknown files whose columns have other names: pairs and key are advised, rules tried, and rulings follow into the next tally. */
final class RuthIsAdvisedTest extends BrowserTestCase
{
    public function test_from_two_unknown_files_to_rulings_that_are_carried_over(): void
    {
        [$old, $new] = ["basin,berth,holder,annual_fee\n", "c1,c2,c3,c4\n"];
        foreach (range(1, 300) as $row) {
            $basin = ['KB', 'LM', 'NQ'][$row % 3];
            $berth = sprintf('%03d', intdiv($row, 3) + 1);
            $old .= "{$basin},{$berth},Holder {$row},".$row * 3 .".50\n";
            $new =
                $row % 60 === 0
                    ? $new
                    : $new.
                        "{$basin},{$berth},".
                        ($row % 25 === 7 ? 'HOLDER' : 'Holder').
                        " {$row},".
                        $row * 3 .
                        ($row % 50 === 9 ? '.75' : '.5').
                        "\n";
        }
        $this->signIn('ruth.osei@wherrymoor.example');
        $this->see('One dataset, none tallied yet');
        $this->open("/datasets/{$this->dataset->id}/deliver");
        foreach (['old' => $old, 'new' => $new] as $side => $content) {
            $this->attach("File of the {$side} register", $content, "{$side}.csv");
            $this->press('Accept this delivery');
            $this->see($side === 'old' ? 'Source 300 records' : 'Target 295 records');
        }

        $this->station('Match');
        $this->see('4 strong suggestions more.');
        $this->meetsNoBarrier();
        // How values are written is decided with the pair, once it is known.
        $this->see('could be read as number');
        $this->press('Confirm all 4');
        $this->see('295 of 300 source rows meet one (98.33 %)');
        $this->press('Use it: basin + berth');
        $this->see('Preview of the result');
        $this->see('all of them.');
        $this->see('5 missing');
        $this->press('Open the rows that differ');
        $this->see('a trial enters nothing');
        $this->press('Close this dialog');
        $this->meetsNoBarrier();
        $this->until(fn(): bool => str_contains($this->text(), '18 changed'), 'the trial to follow the rules');
        $this->press('Tally 300 against 295');
        $this->see('Every row is accounted for');

        $this->station('Review');
        $this->press('holder → c3: capitals differ');
        $this->press('Rule on all 12');
        $this->sayOfAll('Expected', 'capitals are agreed');
        $this->press('Rule expected on 12 cells');
        $this->see('Ruled expected on 12 findings.');
        $this->station('Deliver');
        $this->attach('File of the new register', str_replace('HOLDER 32,', 'HoldER 32,', $new), 'new_2.csv');
        $this->see('Since delivery 1: 0 rows new, 0 gone, 1 changed (by c1 + c2), 294 the same.');
        $this->press('Accept this delivery');
        $this->see('delivery 2 of the new register');
        $this->station('Tally');
        $this->press('Tally 300 against 295');
        $this->see('of 12 findings ruled on in tally 1, 11 stand here, 1 changed since and opened again');
        $this->visible('//input[@aria-label="Compare tally 1"]', 'the first tally')->click();
        $this->visible('//input[@aria-label="Compare tally 2"]', 'the second tally')->click();
        $this->press('Compare tally 1 with tally 2');
        $this->see('there otherwise 1');
        $this->press('Close this dialog');
        $this->meetsNoBarrier();
        $this->station('Review');
        $this->press('holder → c3: capitals differ');
        $this->see('Changed since');
        // What was decided in the first tally is undone in the second: it opens here what stands here.
        $this->see('12 of 23 open');
        $this->press('Rulings so far');
        $this->press('Undo');
        $this->press('Undo: opens 11 findings');
        $this->press('Close this dialog');
        $this->see('23 of 23 open');
        $this->press('Make a rule of it');
        $this->visible('//label[contains(., "let capitals pass")]', 'the rule')->click();
        $this->press('Set it in the draft and go to Match');
        $this->see('Which row is which, and what must be equal');
        $this->until(fn(): bool => str_contains($this->text(), '6 changed'), 'the trial without differences of capitals');
    }
}
