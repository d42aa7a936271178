<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;

final class SigningInTest extends BrowserTestCase
{
    protected function isExpected(string $complaint): bool
    {
        // The wrong password.
        return str_contains($complaint, '/session') && str_contains($complaint, '422');
    }

    public function test_a_wrong_password_is_told_and_the_page_that_was_asked_for_comes_after_the_right_one(): void
    {
        $this->open('/datasets/1/deliver');
        $this->see('Sign in');
        $this->type('E-mail address', 'ruth.osei@wherrymoor.example');
        $this->type('Password', 'wrong');
        $this->press('Sign in');
        $this->see('The address or the password is not right. Check both and try again.');

        $this->type('Password', 'kept by the lock house');
        $this->press('Sign in');
        $this->see('What each side handed over');
        $this->see('Drop the files of the old register here.');
        $this->see('waits for both sides');
        $this->press('Sign out');
        $this->see('Sign in');
    }

    public function test_stations_that_wait_say_for_what(): void
    {
        $this->signIn('ruth.osei@wherrymoor.example');
        $this->see('none tallied yet');
        foreach (
            [
                'match' => 'Both sides must have delivered before rows can be matched.',
                'tally' => 'Both sides and a key are needed first.',
                'review' => 'Review shows what a tally found.',
                'sign' => 'There is nothing to sign before the first tally.',
            ]
            as $station => $says
        ) {
            $this->open("/datasets/1/{$station}");
            $this->see($says);
        }
    }

    public function test_the_whole_board_can_be_reached_by_keyboard(): void
    {
        $this->signIn('ruth.osei@wherrymoor.example');
        $this->see('One dataset, none tallied yet');
        // Whoever comes to a page begins at what it is about, and goes back from there to what stands on every page.
        $this->browser->switchTo()->activeElement()->sendKeys([WebDriverKeys::SHIFT, WebDriverKeys::TAB]);
        $reached = [trim($this->browser->switchTo()->activeElement()->getText())];
        for ($step = 0; $step < 11; $step++) {
            $this->browser->switchTo()->activeElement()->sendKeys(WebDriverKeys::TAB);
            $reached[] = trim($this->browser->switchTo()->activeElement()->getText());
        }

        foreach (['Wherrymoor cutover', 'Sign out', 'Add a dataset', 'Moorings'] as $name) {
            self::assertContains($name, $reached);
        }
    }
}
