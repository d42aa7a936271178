<?php

declare(strict_types=1);

namespace Tests\Browser;

use App\Actions\Sources\AdvanceDraws;
use App\Adapters\Sources\Sources;
use App\Models\Draw;
use App\Models\DrawState;

/** From an empty dataset to a tally by schedule of two databases, with no file. */
final class RuthDrawsBothSidesTest extends BrowserTestCase
{
    use MeetsNoBarrier;

    private const QUERY = "SELECT index_no, inspected_on, length_m, remarks FROM inspections WHERE index_no < 'W40020' ORDER BY 1, 2";

    protected function isExpected(string $complaint): bool
    {
        return str_contains($complaint, 'status of 422');
    }

    public function test_two_databases_are_drawn_matched_and_tallied_by_schedule(): void
    {
        $this->makeHarbourOffice();
        $this->person('Greta Holm')->update(['is_administrator' => true]);
        $this->signIn('greta.holm@wherrymoor.example');
        $this->press('Connections');
        $this->press("Add a connection to {$this->migration->name}");
        $this->type('Name of the connection', 'Harbour office');
        $this->choose('Kind of source', 'SQLite');
        $this->type('File of the database', 'harbour.sqlite3');
        $this->press('Try it');
        $this->see('There is no SQLite database at harbour.sqlite3');
        $this->meetsNoBarrier();
        $this->type('File of the database', 'harbour.sqlite');
        $this->press('Try and keep it');
        $this->see('SQLite, harbour.sqlite');

        $this->openBrowser();
        $this->signIn('ruth.osei@wherrymoor.example');
        $this->see('Moorings');
        $this->open("/datasets/{$this->dataset->id}/deliver");
        $this->press('Draw from a source');
        $this->choose('Source of the old register', 'Old system');
        $this->press('a query');
        $this->type('Query for the old register', self::QUERY);
        $this->press('Take the rows of this query');
        $this->press('Accept this delivery');
        $this->see('delivery 1 of the old register');
        $this->visible("//section[@aria-label='New register']//button[normalize-space(.)='Draw from a source']", 'the other side')->click();
        $this->choose('Source of the new register', 'Harbour office');
        $this->choose('Table of the new register', 'inspections');
        $this->press('Take the rows of this table');
        $this->press('Accept this delivery');
        $this->see('delivery 1 of the new register');
        $this->press('Match the rows');
        $this->see('source rows meet one');
        $this->press('Tally ');
        $this->see('Every row is accounted for');

        $this->station('Deliver');
        $this->press('Draw by schedule');
        $this->see('the old register from Old system; the new register from Harbour office');
        $this->choose('How often', 'Monday to Friday');
        $this->press('Do so from now on');
        $this->see('Monday to Friday at 06:00');
        $this->meetsNoBarrier();
        $this->makeHarbourOffice('Keel scraped');
        $this->press('Draw both now');
        $this->see('being drawn');
        $this->until(function (): bool {
            app(AdvanceDraws::class)();

            return Draw::query()->sole()->state === DrawState::Done;
        }, 'both sides to be drawn and tallied');
        $this->see('Tally 2: 2 findings open.');
        $this->press('Close this dialog');
        $this->open("/migrations/{$this->migration->id}/schedule");
        $this->see('1 dataset drawn by schedule');
        $this->meetsNoBarrier();
    }

    /** What the old system has, in a file of its own, with two remarks that differ. */
    private function makeHarbourOffice(string $remark = ''): void
    {
        $folder = storage_path('sources');
        is_dir($folder) || mkdir($folder);
        $rows = storage_path('work/rows');
        app(Sources::class)->of($this->migration, 'Old system')->snapshot(self::QUERY, $rows, static fn(): bool => true);
        @unlink("{$folder}/harbour.sqlite");
        $database = new \PDO("sqlite:{$folder}/harbour.sqlite", options: [\PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION]);
        $database->exec(
            'CREATE TABLE inspections (index_no TEXT, inspected_on TEXT, length_m TEXT, remarks TEXT, '.
                'PRIMARY KEY (index_no, inspected_on))',
        );
        $insert = $database->prepare('INSERT INTO inspections VALUES (?, ?, ?, ?)');
        foreach (file($rows) ?: [] as $number => $line) {
            /** @var list<string|null> $row */
            $row = array_values((array) json_decode($line, true));
            $insert->execute($remark !== '' && $number < 2 ? [...array_slice($row, 0, 3), $remark] : $row);
        }
        // Who serves reads it.
        chmod("{$folder}/harbour.sqlite", 0644);
    }
}
