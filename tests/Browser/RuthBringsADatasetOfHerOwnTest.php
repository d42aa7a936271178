<?php

declare(strict_types=1);

namespace Tests\Browser;

/** Create, deliver two files, match, tally, review, rule, report: no step needs a manual. */
final class RuthBringsADatasetOfHerOwnTest extends BrowserTestCase
{
    protected function isExpected(string $complaint): bool
    {
        // The workbook that is refused on the way.
        return str_contains($complaint, '/chunks/0') && str_contains($complaint, '422');
    }

    public function test_from_two_files_to_a_report(): void
    {
        $this->signIn('ruth.osei@wherrymoor.example');
        $this->see('One dataset, none tallied yet');
        $this->press('Add a dataset');
        $this->type('Name of the dataset', 'Berths');
        $this->press('Add it and deliver both sides');

        $this->see('What each side handed over');
        $this->attach('File of the old register', "PK\x03\x04 a workbook", 'berths.xlsx');
        $this->see('"berths.xlsx" breaks off in the middle or is damaged');
        $this->attach('File of the old register', self::OLD, 'berths_old.csv');
        $this->see('found comma: 9 of the first 10 records have 4 cells');
        $this->see('Ezekiel Thornøy');
        $this->press('Accept this delivery');
        $this->see('8 rows, 1 record refused');
        $this->press('1 record refused');
        $this->see('2 cells where the header has 4');
        $this->press('Close this dialog');
        $this->attach('File of the new register', self::NEW, 'berths_new.csv');
        $this->press('Accept this delivery');
        $this->see('Source 9 records = 8 delivered + 1 refused');
        $this->see('Target 5 records = 5 delivered + 0 refused');

        $this->press('Match the rows');
        $this->see('Which row is which, and what must be equal');
        $this->press('Make basin part of the key');
        $this->press('Make berth part of the key');
        $this->choose('Target column of holder', 'owner');
        $this->see('5 rows with a unique key, 2 share a key, 1 without a key');
        $this->press('Tally 8 against 5');

        $this->see('Every row is accounted for');
        $this->see('1 missing, 4 changed, 2 repeated, 1 extra');
        $this->press('Review tally 1');

        $this->see('What differs, and why');
        $this->see('Source 8 = 0 agreed + 4 changed + 1 missing + 2 repeated + 1 unkeyed');
        $this->see('Target 5 = 0 agreed + 4 changed + 1 extra + 0 repeated + 0 unkeyed');
        $this->press('holder → owner: capitals differ, 1 cell');
        $this->see('1 of 2 cells differ');
        $this->see('EZEKIEL THORNØY');
        $this->press('Expected');
        $this->see('why?');
        $this->type('Reason', "capitals are agreed\n");
        $this->see('Ruled expected on 1 finding.');
        $this->see('10 of 11 open');
        $this->see('capitals are agreed');

        $this->press('Show the 2 repeated rows');
        $this->see('2 rows of the source and 0 of the target have it');
        $this->press('Rule on all 2');
        $this->see('Choose what they are.');
        $this->sayOfAll('Expected', 'one berth, entered twice');
        $this->press('Rule expected on 2 rows');
        $this->see('Ruled expected on 2 findings.');
        $this->see('8 of 11 open');
        $this->press('Undo');
        $this->see('10 of 11 open');

        $this->open('/datasets/2/sign');
        $this->see('Is it good enough to go live?');
        $this->see('10 findings without a ruling.');
        $this->browser->switchTo()->frame($this->visible('//iframe', 'the report'));
        $this->see('10 of 11 findings in Berths are still open');
        $this->browser->switchTo()->defaultContent();
        $this->press('Report as PDF');
        $this->until(static fn(): bool => is_file(storage_path('work/berths-tally-1-report-1.pdf')), 'the PDF');
        self::assertStringStartsWith('%PDF', (string) file_get_contents(storage_path('work/berths-tally-1-report-1.pdf')));
    }
}
