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

        // What is right for one of them a person knows.
        $this->press('Old register: only fee');
        $this->visible('//button[starts-with(@aria-label, "keep this: line 5")]', 'the later row of berth 33')->click();
        $this->type('Why this row is kept', 'The harbour master raised the fee.');
        $this->press('Keep it');
        $this->see('Kept by hand: The harbour master raised the fee.');

        // All that differ in one column can go a way of their own.
        $this->press('Old register: only loaded');
        $this->choose('Old register: what becomes of these groups', 'keep the last');
        $this->see('has a policy of its own');
        $this->press('Undo');

        $this->press('What becomes of them');
        $this->see('12 keys stand more than once on a side, in 24 rows of the old register and 11 rows of the new register.');
        $this->choose('Sides that policies are tried for', 'the old register');
        $this->choose('Column that decides', 'loaded');
        $this->see('keep the highest loaded');
        $this->visible(
            '//tr[th[normalize-space(.)="keep the first"]][td[normalize-space(.)="0 of 1"]]',
            'that the first is not what was chosen',
        );
        foreach (['keep the first', 'collapse exact copies'] as $policy) {
            $this->visible("//tr[th[normalize-space(.)='{$policy}']]//label", "the box of {$policy}")->click();
        }
        $this->see('They keep different rows of 10 keys');
        $this->see('kept by the first');
        $this->see('the second sets all aside');
        $this->meetsNoBarrier();
        $this->visible('//tr[th[normalize-space(.)="keep the first"]]//button', 'taking the first')->click();
        $this->see('In the plan: keep the first. It holds from the next tally on.');
        $this->see('keep the first in the source, exclude from comparison in the target – the plan now');

        $this->press('Tally');
        $this->see('53 against 40 delivered rows');
        $this->press('Tally');
        $this->see('no. 2');
        $this->see('Keys that repeat in the source: 12 rows not kept beside 12 rows kept.');
        $this->see('1 missing, 1 changed, 12 repeated');

        $this->station('Review');
        $this->press('Which rows stand where');
        $this->see('Old register: 2 here alone, 51 on both. New register: 0 here alone, 40 on both.');
        $this->choose('One line for each', 'berth');
        $this->see('53 … 54');
        $this->meetsNoBarrier();
    }
}
