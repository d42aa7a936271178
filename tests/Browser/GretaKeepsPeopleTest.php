<?php

declare(strict_types=1);

namespace Tests\Browser;

use App\Actions\Access\TimeCode;
use App\Models\SecondFactor;

/** An administrator invites somebody, who comes by the link, has a role, has another, and has none. */
final class GretaKeepsPeopleTest extends BrowserTestCase
{
    protected function isExpected(string $complaint): bool
    {
        return preg_match('/ 4(03|04|22)\b/', str_replace('status of ', ' ', $complaint)) === 1;
    }

    private const FIELD = 'Password, 15 characters or more; several words are easy to keep';

    public function test_somebody_is_invited_comes_in_and_goes(): void
    {
        $this->tallied();
        $greta = $this->person('Greta Holm');
        $greta->update(['is_administrator' => true]);
        $this->signIn('greta.holm@wherrymoor.example');
        $this->press('People');
        $this->see('Nobody gives a role to themself.');
        $this->meetsNoBarrier();
        $this->type('Name', 'Jonas Havelund');
        $this->type('E-mail address', 'jonas.havelund@wherrymoor.example');
        $this->choose('Migration', $this->migration->name);
        $this->choose('Role', 'viewer');
        $this->press('Invite');
        $link = $this->visible('//code[contains(., "/invitation/")]', 'the link')->getText();
        $this->see('Invited, and not here yet');
        $administrator = $this->browser;

        $jonas = $this->openBrowser();
        $this->open((string) parse_url($link, PHP_URL_PATH));
        $this->see('as viewer of');
        $this->type(self::FIELD, "ruth osei ruth\n");
        $this->see('A password has 15 to 128 characters');
        $this->type(self::FIELD, "eleven herons under the sluice\n");
        $this->see('One dataset, every one with something to explain');
        $this->open("/datasets/{$this->dataset->id}/review");
        $this->see('What differs, and why');
        self::assertStringNotContainsString('Enter the ruling', $this->text());
        $this->signsInWithASecondFactor();

        $this->browser = $administrator;
        $this->open('/people');
        $this->choose('Role of Jonas Havelund in '.$this->migration->name, 'no role');
        $this->see('Jonas Havelund: no role any more');
        $this->browser = $jonas;
        $this->open("/datasets/{$this->dataset->id}/review");
        // For whom nothing is there any more, nothing is there.
        $this->see('It may have been removed, or the address is wrong.');
    }

    /** An authenticator is asked for from its first right code on; where it is lost, a recovery code stands for it. */
    private function signsInWithASecondFactor(): void
    {
        $this->open('/account');
        $this->type('Your password, to change this', "eleven herons under the sluice\n");
        $this->visible('//img[contains(@alt, "secret for your authenticator")]', 'the picture to scan');
        $this->meetsNoBarrier();
        $secret = (string) hex2bin(SecondFactor::query()->firstOrFail()->secret);
        $this->type('Code of the authenticator', TimeCode::at($secret, intdiv(time(), TimeCode::SECONDS))."\n");
        $this->see('They are shown now and never again');
        $recovery = $this->visible('//ul[contains(@class, "codes")]/li', 'a recovery code')->getText();
        $this->press('I have written them down');
        $this->see('10 recovery codes are left');
        $this->press('Sign out');
        $this->see('Sign in');
        $this->type('E-mail address', 'jonas.havelund@wherrymoor.example');
        $this->type('Password', "eleven herons under the sluice\n");
        $this->type('Code of your authenticator, or a recovery code', "{$recovery}\n");
        $this->see('One dataset, every one with something to explain');
    }
}
