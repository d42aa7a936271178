<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;

/** Holders to whom the new system gave other numbers are found by their names, bridged, and joined by the next tally. */
final class RuthBridgesHoldersTest extends BrowserTestCase
{
    public function test_three_holders_are_bridged_one_is_refused_and_taken_back_and_the_next_tally_joins_them(): void
    {
        [$old, $new] = ["holder,name,street,since\n", "holder,name,street,since\n"];
        foreach (['Ada Quill', 'Otto Reed', 'Nnedi Dàvies'] as $number => $name) {
            $old .= "{$number},{$name},{$number} Lock Street,2019-04-0{$number}1\n";
            $new .= "{$number},{$name},{$number} Lock Street,2019-04-0{$number}1\n";
        }
        $old .=
            "H-17,Ezekiel Thornøy,12 Salt Quay,2018-02-03\nH-18,Hester Marrow,7 Heron Row,2020-05-06\n".
            "H-19,Wanda Ilse,1 Weir Lane,2017-01-09\n".
            "H-20,Tomasz Underbridge,88 Far Bank,2001-01-01\n";
        $new .= "90021,\"THORNOY, EZEKIEL\",12 Salt Quay,2018-02-03\n90022,Hestor Marrow,7 Heron Row,2020-05-07\n".
            "90023,W. Ilse,1 Weir Lane,2017-01-09\n90030,Søren Fenwright,3 Eel Pie Road,1999-09-09\n";
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $this->actingAs($this->analyst);
        $this->deliver('source', $old, 'old.csv');
        $this->deliver('target', $new, 'new.csv');
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [$same('holder')],
            'columnPairs' => array_map($same, ['name', 'street', 'since']),
            'leftOut' => ['source' => [], 'target' => []],
        ])->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $this->berths();

        $this->signIn('ruth.osei@wherrymoor.example');
        $this->press('Moorings');
        $this->press('Missing and extra rows that may be the same');
        $this->see('3 pairs of 4 missing rows and 4 extra rows');
        $this->see('same street and since; the words of name in another order.');
        $this->see('same street; name differs by one character; since one day apart.');
        $this->meetsNoBarrier();
        $this->press('Refuse');
        $this->see('1 pair refused, and not proposed again.');
        $this->see('open 2');
        $this->press('Undo');
        $this->see('open 3');
        $this->press('Confirm the 3 without a rival …');
        $this->see('Confirm 3 pairs together?');
        $this->meetsNoBarrier();
        $this->press('I have looked: confirm all 3');
        $this->see('3 bridges more in the draft: the next tally joins these rows.');
        $this->press('confirmed 3');
        $this->see('90023');
        $this->press('Keys that bridges join');
        $this->see('3 bridges');
        $this->see('from the next tally on');
        $this->press('The old register is right in all');
        $this->see('Say it of none');
        $this->meetsNoBarrier();
        $this->station('Match');
        $this->press('Tally');
        $this->see('no. 2');
        $this->station('Review');
        $this->press('Missing and extra rows that may be the same');
        $this->see('0 pairs of 1 missing row and 1 extra row');

        // What refers to these holders takes their new numbers from here.
        $this->press('Wherrymoor cutover');
        $this->press('Berths');
        $this->station('Prepare');
        $this->choose('Add a step for the old register', 'Put the number that another dataset matched');
        $this->type('As matched by the dataset', 'Moorings');
        $this->choose('Column here, and its column in the source there, 1', 'held_by');
        $this->type('Column here, and its column in the source there, 1, second', 'holder');
        $this->type('Column in the target there, and where it goes here, 1', 'holder');
        $this->type('Column in the target there, and where it goes here, 1, second', 'held_by'.WebDriverKeys::ENTER);
        $this->see('Put for held_by what Moorings matched: holder into held_by');
        $this->see('2 cells altered');
        $this->see('1 cell: without a record');
        $this->meetsNoBarrier();
        $this->station('Tally');
        $this->see('4 against 4 delivered rows');
        $this->press('Tally');
        $this->see('no. 2');
        $this->see('as Moorings matched in tally 2');
        $this->see('4 of 4 values are right (100.00 %)');
    }

    /** Moorings by berth, each with the number of its holder. */
    private function berths(): void
    {
        $this->dataset = $this->migration->datasets()->create(['name' => 'Berths']);
        $this->deliver('source', "berth,held_by\nKB 1,H-17\nKB 2,H-18\nKB 3,1\nKB 4,H-99\n", 'old.csv');
        $this->deliver('target', "berth,held_by\nKB 1,90021\nKB 2,90022\nKB 3,1\nKB 4,H-99\n", 'new.csv');
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [['source' => 'berth', 'target' => 'berth']],
            'columnPairs' => [['source' => 'held_by', 'target' => 'held_by']],
            'leftOut' => ['source' => [], 'target' => []],
        ])->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
    }
}
