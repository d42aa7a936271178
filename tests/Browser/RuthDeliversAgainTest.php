<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\Chrome\ChromeDevToolsDriver;

/** A large file whose connection breaks, a second delivery that says what it changes, and a deliverer whose figures do not hold. */
final class RuthDeliversAgainTest extends BrowserTestCase
{
    protected function isExpected(string $complaint): bool
    {
        return str_contains($complaint, 'ERR_INTERNET_DISCONNECTED');
    }

    public function test_a_broken_upload_goes_on_and_the_next_delivery_says_what_it_changes(): void
    {
        $line = 'KB,%06d,'.str_repeat('quay wall ', 20)."\n";
        $large = "basin,berth,note\n".implode('', array_map(static fn(int $row): string => sprintf($line, $row), range(1, 60_000)));
        $this->signIn('ruth.osei@wherrymoor.example');
        $this->see('One dataset, none tallied yet');
        $this->open("/datasets/{$this->dataset->id}/deliver");
        $this->see('What each side handed over');
        $this->network(false, 6 * 1024 * 1024);
        $this->attach('File of the old register', $large, 'moorings.csv');
        $this->see('4.2 MB of 12.7 MB received');
        $this->network(true, -1);
        $this->until(fn(): bool => $this->browser->executeScript('return !navigator.onLine') === true, 'the connection to be gone');
        $this->network(false, -1);
        $this->see('Accept this delivery');
        $this->press('Accept this delivery');
        $this->see('Source 60,000 records = 60,000 delivered + 0 refused');

        $this->attach(
            'File of the old register',
            substr($large, 0, -4 * strlen(sprintf($line, 1))).sprintf($line, 70_001)."TRL,59996\n",
            'moorings_2.csv',
        );
        $this->see('the last record is a trailer and no row');
        $this->visible('//label[contains(., "the last record is a trailer")]', 'the trailer')->click();
        $this->see('the number of rows');
        $this->see('Since delivery 1: 1 row new, 4 gone, 59,996 the same.');
        $this->press('Add a control total from the sender');
        $this->choose('Column of total 1', 'berth');
        $this->type('Sum of berth, as the deliverer says', '1800000000');
        $this->meetsNoBarrier();
        $this->press('Accept this delivery');
        $this->see('rows: 59,997 arrived, and the last record of moorings_2.csv says 59,996');
        $this->see('sum of berth: 1,799,860,007 arrived, and the deliverer says 1,800,000,000');
        $this->press('Explain');
        $this->type(
            'Why it differs: sum of berth: 1,799,860,007 arrived, and the deliverer says 1,800,000,000',
            'Four berths were closed.',
        );
        $this->press('Keep the explanation');
        $this->see('“Four berths were closed.” Ruth Osei');
    }

    private function network(bool $isOffline, int $bytesASecond): void
    {
        $tools = new ChromeDevToolsDriver($this->browser);
        $tools->execute('Network.enable');
        $tools->execute('Network.emulateNetworkConditions', [
            'offline' => $isOffline,
            'latency' => 0,
            'downloadThroughput' => -1,
            'uploadThroughput' => $bytesASecond,
        ]);
    }
}
