<?php

declare(strict_types=1);

namespace Tests\Feature\Sources;

use App\Actions\Sources\AdvanceDraws;
use App\Models\Draw;
use App\Models\DrawState;
use App\Models\SourceConnection;
use App\Models\Tally;
use Illuminate\Support\Facades\DB;
use NineTally\Core\Row\Side;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Support\DatabaseServer;
use Tests\TestCase;

/** Both databases asked before anything is drawn: what is found then is what is found when all is drawn. */
final class InPlaceTest extends TestCase
{
    private static ?DatabaseServer $server = null;

    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->analyst);
    }

    protected function tearDown(): void
    {
        // They stand in the database of the tests, and are no part of it.
        $this->postgresql()->exec('DROP TABLE IF EXISTS old_berths, new_berths');
        parent::tearDown();
    }

    public static function tearDownAfterClass(): void
    {
        self::$server?->end();
        self::$server = null;
        parent::tearDownAfterClass();
    }

    /** @return array<string, array{string, string}> */
    public static function kinds(): array
    {
        return ['PostgreSQL alone' => ['postgresql', 'postgresql'], 'MariaDB and SQLite' => ['mysql', 'sqlite'],
            'SQLite and PostgreSQL' => ['sqlite', 'postgresql']];
    }

    #[DataProvider('kinds')]
    public function test_what_differs_is_drawn_and_nothing_else_is_found_when_all_is(string $source, string $target): void
    {
        /** @var array<int, array{string, string, string|null}> $old */
        $old = [];
        for ($number = 1; $number <= 1_500; $number++) {
            $old[$number - 1] = [
                "KB {$number}",
                sprintf('%d.%02d', $number, $number % 100),
                $number % 7 === 0 ? null : "Très \"{$number}\" '\\",
            ];
        }
        $new = $old;
        // Changed, blanked, with a blank behind it, missing, extra; keys that repeat on one side and on both, to the letter; and no key.
        $new[10] = [$old[10][0], '99.99', $old[10][2]];
        $new[400] = [$old[400][0], $old[400][1], ''];
        $new[401] = [$old[401][0], $old[401][1], "{$old[401][2]} "];
        unset($new[700]);
        $new[] = ['KB 9999', '1.00', 'new'];
        $old[] = $old[900];
        array_push($old, $old[1_200], ['', '5.00', 'x']);
        array_push($new, $old[1_200], ['', '5.00', 'x']);
        $this->hold('Old', $source, 'old_berths', array_values($old));
        $this->hold('New', $target, 'new_berths', array_values($new));

        $this->api('POST', "/datasets/{$this->dataset->id}/draws", ['inPlace' => true])->assertAccepted();
        $inPlace = $this->drawnAndTallied();
        $said = implode("\n", array_column(Draw::query()->latest('id')->firstOrFail()->log, 'said'));
        self::assertStringContainsString('1,503 rows of the source and 1,502 of the target stand in', $said);
        $delivery = $this->dataset->latestDelivery(Side::Source);
        $part = $delivery?->parts()->firstOrFail()->query['inPlace'] ?? self::fail($said);
        self::assertSame(1_503, $part['agreed'] + $delivery->delivered_count, 'Each row is drawn, or agrees where it stands.');
        self::assertGreaterThan(1_000, $part['agreed']);
        self::assertLessThanOrEqual(10, $part['differing']);

        $this->api('POST', "/datasets/{$this->dataset->id}/draws")->assertAccepted();
        $all = $this->drawnAndTallied();
        self::assertNotSame($inPlace->id, $all->id);
        self::assertSame($this->found($all), $this->found($inPlace));
        self::assertGreaterThan(9, count($this->found($all)));
        $this->get("/api/v1/tallies/{$inPlace->id}/report")->assertOk()->assertSee('Drawn in part');
    }

    public function test_where_nothing_differs_nothing_is_drawn_and_rules_that_could_hide_something_forbid_it(): void
    {
        $rows = array_map(static fn(int $number): array => ["KB {$number}", '1.00', null], range(1, 100));
        $this->hold('Old', 'sqlite', 'old_berths', $rows);
        $this->hold('New', 'sqlite', 'new_berths', $rows);
        $tallies = Tally::query()->count();
        $this->api('POST', "/datasets/{$this->dataset->id}/draws", ['inPlace' => true])->assertAccepted();
        $this->look();
        $draw = Draw::query()->sole();
        self::assertSame([DrawState::Done, $tallies], [$draw->state, Tally::query()->count()]);
        self::assertStringContainsString('Nothing differs, so nothing was drawn', implode("\n", array_column($draw->log, 'said')));

        $this->plan(['totals' => [['measure' => 'rows']]]);
        $this->api('GET', "/datasets/{$this->dataset->id}/schedule")->assertSee('control totals need every row');
        $this->api('POST', "/datasets/{$this->dataset->id}/draws", ['inPlace' => true])->assertConflict()->assertSee('need every row');
    }

    /** @return list<string> what a tally found, whatever the places of the rows */
    private function found(Tally $tally): array
    {
        $told = ['class', 'side', 'key', 'source_rows', 'target_rows', 'source_cells', 'target_cells', 'differing_cells'];
        $found = DB::table('row_findings')
            ->where('tally_id', $tally->id)
            ->get($told)
            ->map(static fn(object $row): string => json_encode($row, JSON_THROW_ON_ERROR))
            ->all();
        sort($found);

        return $found;
    }

    /** @param list<array{string, string, string|null}> $rows */
    private function hold(string $label, string $kind, string $table, array $rows): void
    {
        $port = DB::connection()->getConfig('port');
        [$database, $settings, $password] = match ($kind) {
            'postgresql' => [$this->postgresql(), [
                'host' => '127.0.0.1', 'port' => is_numeric($port) ? (int) $port : 0,
                'database' => DB::connection('owner')->getDatabaseName(), 'user' => DB::connection('owner')->getConfig('username'),
            ], DB::connection('owner')->getConfig('password')],
            'mysql' => $this->mariadb(),
            default => [$this->sqlite($table), ['file' => "{$table}.sqlite"], null],
        };
        $database->exec("DROP TABLE IF EXISTS {$table}");
        $database->exec("CREATE TABLE {$table} (berth varchar(40), fee varchar(20), note text, large bigint)");
        $insert = $database->prepare("INSERT INTO {$table} VALUES (?, ?, ?, ?)");
        foreach ($rows as $row) {
            // Two that have their last 32 bits alike.
            $insert->execute([...$row, $row[0] === 'KB 500' && $label === 'New' ? 9_007_203_549_708_289 : 9_007_199_254_740_993]);
        }
        SourceConnection::query()->create([
            'migration_id' => $this->migration->id, 'label' => $label, 'kind' => $kind, 'settings' => $settings, 'secret' => $password,
            'user_id' => $this->analyst->id,
        ]);
        $side = $label === 'Old' ? 'source' : 'target';
        $asked = ['side' => $side, 'source' => $label, 'sql' => "SELECT * FROM {$table} WHERE fee > :least", 'values' => ['least' => '0']];
        $id = $this->api('POST', "/datasets/{$this->dataset->id}/snapshots", $asked)->assertAccepted()->json('id');
        $this->takeParts($side, is_string($id) ? $id : '')->assertAccepted();
        $side === 'source' || $this->plan([]);
    }

    /** @return array{\PDO, array<string, mixed>, string} */
    private function mariadb(): array
    {
        self::$server ??= DatabaseServer::begin(
            storage_path('work/mariadb-in-place'),
            "CREATE DATABASE old CHARACTER SET utf8mb4; CREATE USER reader@'127.0.0.1' IDENTIFIED BY 'in'; ".
                "GRANT ALL ON old.* TO reader@'127.0.0.1'",
        );
        $port = self::$server->port;

        return [
            new \PDO("mysql:host=127.0.0.1;port={$port};dbname=old;charset=utf8mb4", 'reader', 'in', [
                \PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION,
            ]),
            ['host' => '127.0.0.1', 'port' => $port, 'database' => 'old', 'user' => 'reader'], 'in',
        ];
    }

    private function postgresql(): \PDO
    {
        $told = static fn(string $setting): string => is_scalar($is = DB::connection('owner')->getConfig($setting)) ? (string) $is : '';

        return new \PDO("pgsql:host=127.0.0.1;port={$told('port')};dbname={$told('database')}", $told('username'), $told('password'), [
            \PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION,
        ]);
    }

    private function sqlite(string $name): \PDO
    {
        is_dir(storage_path('sources')) || mkdir(storage_path('sources'));
        $file = storage_path("sources/{$name}.sqlite");
        @unlink($file);

        return new \PDO("sqlite:{$file}", options: [\PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION]);
    }

    /** @param array<string, mixed> $more */
    private function plan(array $more): void
    {
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", $more + [
            'key' => [$same('berth')],
            'columnPairs' => [$same('fee'), $same('note'), $same('large')],
            'leftOut' => ['source' => [], 'target' => []],
        ])->assertOk();
    }

    private function look(): void
    {
        foreach (range(1, 4) as $_) {
            app(AdvanceDraws::class)();
        }
    }

    private function drawnAndTallied(): Tally
    {
        $this->look();
        $draw = Draw::query()->latest('id')->firstOrFail();
        self::assertSame(DrawState::Done, $draw->state, implode("\n", array_column($draw->log, 'said')));

        return $this->dataset->latestTally() ?? self::fail('There is no tally.');
    }
}
