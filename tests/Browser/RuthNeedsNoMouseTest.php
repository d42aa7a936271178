<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;

/** From two unknown files to a ruled tally with nothing but the keyboard. */
final class RuthNeedsNoMouseTest extends BrowserTestCase
{
    public function test_from_two_unknown_files_to_a_ruled_tally(): void
    {
        [$old, $new] = ["basin,berth,holder,fee\n", "pool,place,owner,charge\n"];
        foreach (range(1, 120) as $row) {
            $key = ['KB', 'LM', 'NQ'][$row % 3].','.sprintf('%03d', intdiv($row, 3) + 1);
            $old .= "{$key},Holder {$row},".(100 + $row)."\n";
            $new .= "{$key},".($row % 12 === 0 ? 'HOLDER' : 'Holder')." {$row},".(100 + $row)."\n";
        }
        $this->open('/');
        $this->type('E-mail address', 'ruth.osei@wherrymoor.example');
        $this->type('Password', 'kept by the lock house'.WebDriverKeys::ENTER);
        $this->see('One dataset, none tallied yet');
        $this->strike('Moorings');
        foreach (['old' => $old, 'new' => $new] as $side => $content) {
            $this->attach("File of the {$side} register", $content, "{$side}.csv");
            $this->see('Accept this delivery');
            $this->strike('Accept this delivery');
            $this->see($side === 'old' ? 'Source 120 records' : 'Target 120 records');
        }
        $this->strike('3 Match');
        $this->see('4 strong suggestions more.');
        $this->strike('Confirm all 4');
        $this->see('basin + berth Use it');
        $this->strike('Use it: basin + berth');
        $this->see('Tally 120 against 120');
        $this->strike('Tally 120 against 120');
        $this->see('Every row is accounted for');
        $this->strike('5 Review');
        $this->see('holder → owner : capitals differ');
        $this->strike('holder → owner: capitals differ, 10 cells');
        $this->see('KB,005');
        $this->strike('Findings', 'E');
        $this->type('Reason', "capitals are agreed\n");
        $this->see('Ruled expected on 10 findings.');
        $this->see('all 10 ruled');
        $this->strike('Findings', '/');
        $this->type('Find a key', 'KB,002');
        $this->see('KB,002 agrees');
        $this->strike('Find a key');
        $this->see('Every compared cell agrees');
        $this->see('Holder 3');
    }
}
