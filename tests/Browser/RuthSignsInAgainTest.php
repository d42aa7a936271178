<?php

declare(strict_types=1);

namespace Tests\Browser;

use App\Models\SignInEntry;

/** A session ends while somebody is at work: they sign in over the page, and nothing typed into it is lost. */
final class RuthSignsInAgainTest extends BrowserTestCase
{
    protected function isExpected(string $complaint): bool
    {
        return preg_match('/status of (?:401|419|422)/', $complaint) === 1;
    }

    public function test_a_session_is_over_and_goes_on_with_what_was_typed(): void
    {
        $this->tallied();
        $this->signIn('ruth.osei@wherrymoor.example');
        $this->press('Moorings');
        $this->press('All differences');
        $this->see('Every row that does not agree');
        $this->seeFindings(10);
        $this->keys('E');
        $this->see('Enter the ruling');
        $this->type('Reason', 'as agreed with the lock house');
        SignInEntry::query()->update(['ended_at' => now()]);

        $this->see('Your session is over');
        $this->meetsNoBarrier();
        $this->type('Password, to go on', "not this one\n");
        $this->see('The address or the password is not right');
        $this->type('Password, to go on', "kept by the lock house\n");
        $this->until(fn(): bool => ! str_contains($this->text(), 'Your session is over'), 'the page to go on');
        $reason = $this->visible('//*[@aria-label="Reason"]', 'the reason');
        self::assertSame('as agreed with the lock house', $reason->getAttribute('value'));
        $reason->sendKeys("\n");
        $this->see('Ruled expected on');
        $this->press('Rulings so far');
        $this->see('as agreed with the lock house');
    }
}
