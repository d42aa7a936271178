<?php

declare(strict_types=1);

namespace Tests\Browser;

use App\Adapters\Storage\BlobStore;
use App\Models\Pack;
use App\Models\Purge;
use App\Models\Role;

/** From a tally that nobody has ruled on to the third signature: Ines says what is good enough, Ruth prepares, Tove waives and accepts. */
final class ThreePeopleSignTest extends BrowserTestCase
{
    private const PASSWORD = 'kept by the lock house';

    protected function isExpected(string $complaint): bool
    {
        // The password that is wrong at first, the link that was taken back, and findings that are gone.
        return str_contains($complaint, '/findings?') && str_contains($complaint, '410') ||
            (str_contains($complaint, '/signatures') && str_contains($complaint, '422')) ||
            (str_contains($complaint, '/shared/') && str_contains($complaint, '404'));
    }

    public function test_a_tally_is_returned_ruled_on_waived_and_accepted_by_three_people(): void
    {
        $ines = $this->person('Ines Varga');
        $this->migration->memberships()->create(['user_id' => $ines->id, 'role' => Role::TestManager]);
        $this->signIn('ines.varga@wherrymoor.example');
        $this->press('What is good enough');
        $this->see('None yet: nobody has said what is good enough.');
        $this->limit('rows missing', '0');
        $this->limit('findings without a ruling', '0');
        $this->see('findings without a ruling: at most 0');
        $this->visible('//label[contains(., "Reports may be read by a link")]', 'the box for links')->click();
        $this->visible('//label[contains(@class, "is-checked")][contains(., "Reports may be read by a link")]', 'that it is ticked');
        $this->meetsNoBarrier();
        $tally = $this->tallied("basin,berth,fee\nKB,1,10\nKB,2,20\nKB,3,30\n", "basin,berth,fee\nKB,1,10\nKB,2,25\n", [
            ['source' => 'fee', 'target' => 'fee'],
        ]);

        $this->as('ruth.osei');
        $this->see('0 of 2 limits hold, 2 fail');
        $this->sign('Sign: I have prepared it', self::PASSWORD.'?');
        $this->see('This is not your password.');
        $this->type('Your password', self::PASSWORD."\n");
        $this->see('1 of 3 signed');

        $this->as('ines.varga');
        $this->press('Return it');
        $this->type('Why', 'rule on KB 2 first');
        $this->press('Return with this reason');
        $this->see('Taken back before');

        $this->actingAs($this->analyst);
        foreach (['pattern' => '1', 'class' => 'missing'] as $scope => $target) {
            $this->api('POST', "/tallies/{$tally->id}/rulings", [
                'scope' => $scope, 'target' => $target, 'decision' => 'expected', 'reason' => 'as agreed', 'seenAct' => 99,
            ])->assertCreated();
        }
        $this->as('ruth.osei');
        $this->visible('//summary[.="Taken back before"]', 'what was taken back')->click();
        $this->see('rule on KB 2 first');
        $this->see('1 of 2 limits hold, 1 fails');
        $this->sign('Sign: I have prepared it');
        $this->as('ines.varga');
        $this->sign('Sign: I have checked it');
        $this->see('2 of 3 signed');

        $this->as('tove.lindqvist');
        $this->see('Until then nobody can accept.');
        $this->press('Waive it');
        $this->type('Why', 'KB 3 was sold');
        $this->press('Waive it for no worse a figure');
        $this->see('1 of 2 limits hold, 1 is waived');
        $this->meetsNoBarrier();
        $this->sign('Sign: I accept it');
        $this->see('3 of 3 signed');
        $this->press('Make an evidence pack');
        $this->see('Pack 1,');
        $this->reads();
        $this->station('Review');
        $this->see('This tally is signed (accepted), so rulings on it are closed');

        // Somebody changed a byte on the way.
        $pack = (string) file_get_contents($this->app->make(BlobStore::class)->path(Pack::query()->firstOrFail()->digest));
        $this->open('/check-a-pack');
        $this->see('Keys of this installation');
        $this->attach('Pack', $pack, 'evidence.zip');
        $this->see('The pack is what it was');
        $this->meetsNoBarrier();
        $this->attach('Pack', str_replace('KB,3', 'KB,4', $pack), 'changed.zip');
        $this->see('The pack does not fit');
        $this->purges($tally->source_delivery_id);
    }

    /** Somebody without an account reads the report, until the link is taken back. */
    private function reads(): void
    {
        $this->press('Make a link');
        $address = (string) $this->visible('//a[contains(@class, "address")]', 'the address')->getAttribute('href');
        $path = (string) parse_url($address, PHP_URL_PATH);
        $this->open($path);
        $this->see('Moorings is accepted');
        $this->open("/datasets/{$this->dataset->id}/sign");
        $this->press('Take it back');
        $this->see('taken back');
        $this->open($path);
        $this->see('This link leads to no report');
        $this->open("/datasets/{$this->dataset->id}/sign");
        $this->see('Is it good enough to go live?');
    }

    /** What is purged is gone, and everybody is told so. */
    private function purges(int $delivery): void
    {
        $this->open("/migrations/{$this->migration->id}/content");
        $this->see('2 deliveries kept');
        $this->visible('//*[@aria-label="Choose Moorings, source delivery 1"]/ancestor-or-self::label', 'the box of a delivery')->click();
        $this->press('Purge 1 delivery');
        $this->see('Moorings, tally 1 is accepted');
        $this->meetsNoBarrier();
        $this->type('Why, as everybody will read it', 'the council asked for it');
        $this->type('Your password', self::PASSWORD."\n");
        $this->see('1 delivery kept, 1 purged');
        self::assertTrue(Purge::query()->where('delivery_id', $delivery)->exists());
        $this->open("/datasets/{$this->dataset->id}/review");
        $this->see('The content of tally 1 was purged');
    }

    private function limit(string $figure, string $worst): void
    {
        $this->type('On', $figure);
        $this->type('at most', "{$worst}\n");
    }

    private function sign(string $button, string $password = self::PASSWORD): void
    {
        $this->press($button);
        $this->see('An electronic signature by your password');
        $this->type('Your password', "{$password}\n");
    }

    private function as(string $name): void
    {
        $this->open('/account');
        $this->press('Sign out');
        $this->see('Sign in');
        $this->signIn("{$name}@wherrymoor.example");
        $this->see('For you');
        $this->open("/datasets/{$this->dataset->id}/sign");
        $this->see('Is it good enough to go live?');
    }
}
