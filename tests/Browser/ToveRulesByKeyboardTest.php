<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;

use PHPUnit\Framework\Attributes\Group;

/** The data owner walks the stations of a tallied dataset and rules without a mouse. */
final class ToveRulesByKeyboardTest extends BrowserTestCase
{
    public function test_moves_rules_and_finds_by_keyboard(): void
    {
        $this->tallied(
            $this->register(150, 'holder', static fn(int $row): string => "Holder {$row}"),
            $this->register(150, 'owner', static fn(int $row): string => $row === 77 ? 'Somebody else' : "HOLDER {$row}"),
        );
        $this->signIn('tove.lindqvist@wherrymoor.example');
        $this->see('One dataset, every one with something to explain');
        $this->press('Moorings');

        $this->press('holder → owner: capitals differ, 149 cells');
        $this->see('KB,2');
        $this->keys(WebDriverKeys::ARROW_DOWN);
        $this->rule('d', 'cut by the loader');
        $this->see('Ruled defect on 1 finding.');
        $this->see('149 of 150 open');
        $this->see('KB,2');

        $this->keys('E');
        $this->see('Rule on all 149 cells');
        $this->type('Why', 'capitals are agreed');
        $this->type('The number again', '149');
        $this->press('Rule expected on 149 cells');
        $this->see('1 of 150 open');
        $this->press('Undo');
        $this->see('149 of 150 open');
        $this->see('1 defect, 148 open');

        $this->keys('/');
        $this->type('Find a key', 'KB,77');
        $this->visible('//li//*[normalize-space(.)="KB,77"]', 'the key')->click();
        $this->see('Somebody else');
        $this->see('no cause found');
        $this->keys('?');
        $this->see('Single letters and signs act as keys');
    }

    #[Group('long')]
    public function test_a_list_of_a_hundred_thousand_findings_scrolls_to_its_end(): void
    {
        $this->tallied(
            $this->register(100_000, 'holder', static fn(int $row): string => 'a'),
            $this->register(100_000, 'owner', static fn(int $row): string => 'A'),
        );
        $this->signIn('tove.lindqvist@wherrymoor.example');
        $this->press('Moorings');
        $this->press('holder → owner: capitals differ, 100,000 cells');
        $this->see('KB,1');
        $this->keys(WebDriverKeys::END);

        $this->see('KB,100000');
        self::assertLessThan(100, $this->howMany('//*[@role="option"]'), 'Only rows in sight are drawn.');
        $this->see('Source 100,000 = 0 agreed + 100,000 changed');
    }

    public function test_what_a_role_may_not_do_is_not_offered(): void
    {
        $this->tallied();
        $this->signIn('tove.lindqvist@wherrymoor.example');
        $this->press('Moorings');
        $this->see('What differs, and why');
        $this->open('/datasets/1/match');
        $this->see('Which row is which');
        $this->see('To choose the key and tally, ask Ruth Osei (analyst).');

        self::assertSame(0, $this->howMany('//button[starts-with(normalize-space(.), "Tally ")]'));
        $this->open('/datasets/1/nowhere');
        $this->see('There is no page at this address');
    }

    /** @param \Closure(int): string $holder */
    private function register(int $rows, string $column, \Closure $holder): string
    {
        $content = "basin,berth,{$column},fee,loaded\n";
        for ($row = 1; $row <= $rows; $row++) {
            $content .= "KB,{$row},{$holder($row)},1,t\n";
        }

        return $content;
    }
}
