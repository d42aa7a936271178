<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;

/** A delivery of two parts with a wrong guess put right, five steps tried, undone and moved, then the tally. */
final class RuthPreparesBothSidesTest extends BrowserTestCase
{
    public function test_from_two_parts_to_a_tally_of_prepared_rows(): void
    {
        $this->signIn('ruth.osei@wherrymoor.example');
        $this->press('Add a dataset');
        $this->type('Name of the dataset', 'Fees');
        $this->press('Add it and deliver both sides');
        $this->attach('File of the old register', "basin;fee, old\nkb;1,50\nlm;2,75\n", 'north.csv');
        $this->see('found comma');
        $this->choose('Cells are separated by', 'semicolon ;');
        $this->see('fee, old');
        $this->attach('File of the old register', "basin;fee, old\nnq;3,00\n;\n", 'south.csv');
        $this->press('Accept these 2 parts as one delivery');
        $this->see('Source 4 records = 4 delivered + 0 refused');
        $this->attach('File of the new register', "basin,fee\nKB,1.5\nLM,2.75\nNQ,3\n", 'fees.csv');
        $this->press('Accept this delivery');
        $this->see('Target 3 records = 3 delivered + 0 refused');
        $this->see('values: source above, target below');
        $this->meetsNoBarrier();

        $this->station('Prepare');
        $this->choose('Add a step for the old register', 'Leave out blank rows');
        $this->see('3 rows ready to match');
        $this->choose('Add a step for the old register', 'Tidy text');
        $this->choose('Action 1', 'in capitals');
        $this->see('3 cells altered');
        $this->choose('Add a step for the old register', 'Leave out columns');
        $this->see('Leave out the column fee, old');
        $this->see('nothing is changed until you choose below');
        $this->press('Switch on');
        $this->choose('Add a step for the old register', 'Compute a column');
        $this->type('Column', 'fee');
        $this->type('Is', 'replaced(column("fee, old"), ",", ".")');
        $this->see('There is no column "fee, old" at this step.');
        $this->visible('//button[contains(@class, "step")][.//*[contains(., "fee is replaced")]]', 'the step')->sendKeys([
            WebDriverKeys::ALT,
            WebDriverKeys::ARROW_UP,
            WebDriverKeys::NULL,
        ]);
        $this->see('3 cells altered 3 rows Leave out the column fee, old');
        $this->choose('Add a step for the old register', 'Number rows, or rank them');
        $this->see('Number rows into number');
        $this->meetsNoBarrier();
        $this->press('Undo');
        $this->until(fn(): bool => ! str_contains($this->text(), 'Number rows into number'), 'the step to be gone');
        $this->see('Source 4 delivered − 1 left out = 3 to match');

        $this->press('Match 3 with 3 prepared rows');
        $this->choose('Target column of fee', 'fee');
        $this->press('Rules of fee:');
        $this->choose('Read as', 'number');
        $this->see('draft of plan 1, saved');
        $this->press('Tally');
        $this->see('Every row is accounted for');
        $this->station('Review');
        $this->see('Source 3 = 3 agreed + 0 changed + 0 missing');
    }
}
