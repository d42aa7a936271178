<?php

declare(strict_types=1);

namespace Tests\Browser;

/** A block that was loaded twice is seen for what it is, before anything is taken away. */
final class RuthLooksAtRepeatsTest extends BrowserTestCase
{
    public function test_the_double_block_is_found_and_copies_are_told_from_conflicts(): void
    {
        [$old, $new] = ["basin,berth,fee,loaded\n", "basin,berth,fee\n"];
        $row = static fn(int $berth, string $fee, string $loaded): string => "KB,{$berth},{$fee},{$loaded}\n";
        foreach (range(1, 40) as $berth) {
            $old .= $row($berth, '12', 'mon');
            $new .= "KB,{$berth},12\n";
        }
        foreach (range(11, 20) as $berth) {
            $old .= $row($berth, '12', 'tue');
        }
        $old .= $row(33, '99', 'mon').$row(50, '1', 'mon').$row(50, '1', 'mon');
        $this->tallied($old, $new, [['source' => 'fee', 'target' => 'fee']]);

        $this->signIn('ruth.osei@wherrymoor.example');
        $this->press('Moorings');
        $this->press('Which rows repeat, and how');
        $this->see('24 rows repeat in 12 groups, 12 beyond the first of each: 1 group of copies, 11 groups in conflict.');
        $this->see('A block stands twice: lines 42 to 51 are lines 12 to 21 again, 10 rows.');
        $this->see('1 group that repeats here and does not exist in the new register at all.');
        $this->see('KB, 50');
        $this->press('Let copies differ in loaded');
        $this->see('11 groups of copies, 1 group in conflict.');
        $this->visible('//nav[@aria-label="Groups of groups"]//button[contains(., "only fee")]', 'the pattern of the fee')->click();
        $this->see('KB, 33');
        $this->see('2 in the old register, 1 in the new register');
        $this->choose('Column whose total the repeats add to', 'fee');
        $this->see('fee adds up to 701; 220 of it stands beyond the first of each group: 481 without.');
        $this->press('Most at stake');
        $this->see('+99 in the old register');
        $this->meetsNoBarrier();
    }
}
