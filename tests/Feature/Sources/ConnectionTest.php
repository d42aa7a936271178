<?php

declare(strict_types=1);

namespace Tests\Feature\Sources;

use App\Adapters\Sources\Sources;
use App\Models\Receipt;
use App\Models\SourceConnection;
use App\Models\User;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Support\DatabaseServer;
use Tests\TestCase;

/** Connections to databases of each kind that this machine can have: made by an administrator, drawn from by an analyst. */
final class ConnectionTest extends TestCase
{
    private const PASSWORD = 'let "me" in; please ';

    private static ?DatabaseServer $server = null;

    private User $administrator;

    protected function setUp(): void
    {
        parent::setUp();
        $this->administrator = $this->person('Greta Holm');
        $this->administrator->update(['is_administrator' => true]);
        $folder = storage_path('sources');
        is_dir($folder) || mkdir($folder);
        @unlink("{$folder}/old.sqlite");
        $database = new \PDO("sqlite:{$folder}/old.sqlite");
        $database->exec("CREATE TABLE berths (berth INTEGER PRIMARY KEY, fee DECIMAL(9,2), seal BLOB, note TEXT, ended DATE)");
        $database->exec("INSERT INTO berths VALUES (2, '0.30', NULL, 'Très', '2026-01-31'), (1, '12.10', x'00ff7a', 'a \"b\"', NULL)");
    }

    public static function tearDownAfterClass(): void
    {
        self::$server?->end();
        self::$server = null;
        parent::tearDownAfterClass();
    }

    public function test_a_connection_is_tried_before_it_is_kept_and_its_password_is_never_told(): void
    {
        $this->actingAs($this->administrator);
        $old = $this->settings('mysql');
        $wrong = [
            ['host' => 'nowhere.invalid'] + $old, 'There is no computer called nowhere.invalid',
            ['port' => 1] + $old, 'Nobody answers at 127.0.0.1, port 1.',
            ['password' => 'guessed'] + $old, 'refuses this user with this password',
            ['database' => 'nothing'] + $old, 'There is no database called nothing',
            ['port' => $this->ours(), 'kind' => 'postgresql', 'encryption' => 'required'] + $old, 'does not offer an encrypted way in',
            ['encryption' => 'verified', 'authority' => $this->otherAuthority()] + $old, 'is not of the authority that was named',
            ['file' => '../keys/none'] + $this->settings('sqlite'), 'There is no SQLite database at ../keys/none',
            ['port' => $this->ours(), 'password' => 'no', 'kind' => 'postgresql'] + $old,
            'refuses this user with this password',
        ];
        foreach (array_chunk($wrong, 2) as [$settings, $sentence]) {
            $this->keep($settings)->assertUnprocessable()->assertSee($sentence)->assertDontSee('SQLSTATE');
        }
        self::assertSame(0, SourceConnection::query()->count());

        $this->try($old)->assertOk()->assertSee('MariaDB 10');
        $verified = ['encryption' => 'verified', 'authority' => self::$server->authority ?? ''] + $old;
        $this->try($verified)->assertOk()->assertSee('MariaDB');
        $kept = $this->keep($old)->assertCreated()->assertJson(['label' => 'Old', 'hasPassword' => true]);
        $this->keep($old)->assertUnprocessable()->assertSee('Another connection of this migration has this name');
        $shown = (string) $this->api('GET', '/connections')->assertJson(['items' => [['settings' => ['user' => 'reader']]]])->getContent();
        $row = DB::table('connections')->first();
        foreach ([$kept->getContent(), $shown, json_encode($row), DB::table('trail_details')->pluck('about')->implode("\n")] as $told) {
            self::assertStringNotContainsString('let \"me\" in', (string) $told);
            self::assertStringNotContainsString('let "me" in', (string) $told);
        }
        $connection = SourceConnection::query()->firstOrFail();
        self::assertSame(self::PASSWORD, $connection->secret);

        // Without a password the one that is kept stays.
        $path = "/migrations/{$this->migration->id}/connections/{$connection->id}";
        $this->api('PUT', $path, ['label' => 'Old register', 'password' => ''] + $old)->assertOk()->assertJson(['label' => 'Old register']);
        self::assertSame(self::PASSWORD, $connection->refresh()->secret);
        $this->actingAs($this->analyst)->api('DELETE', $path)->assertForbidden();
        $this->actingAs($this->administrator)->api('DELETE', $path)->assertNoContent();
        $this->api('GET', '/connections')->assertJson(['items' => []]);
    }

    #[DataProvider('kinds')]
    public function test_a_table_is_chosen_and_its_rows_come_exactly_as_they_are(string $kind): void
    {
        $this->actingAs($this->administrator)->keep($this->settings($kind))->assertCreated();
        $this->actingAs($this->analyst);
        $at = "/datasets/{$this->dataset->id}";
        $this->api('GET', "{$at}/source-tables?source=Old")->assertOk()->assertJson(['items' => [['name' => 'berths', 'kind' => 'table']]]);
        self::assertSame(
            ['berth' => true, 'fee' => false, 'seal' => false, 'note' => false, 'ended' => false],
            array_column(
                (array) $this->api('GET', "{$at}/source-columns?source=Old&table=berths")
                    ->assertOk()
                    ->json('items'),
                'isKey',
                'name',
            ),
        );
        $this->api('GET', "{$at}/source-columns?source=Old&table=none")->assertUnprocessable()->assertSee('There is no table');

        $rows = $this->drawn(['table' => ['name' => 'berths', 'orderBy' => ['berth']]]);
        self::assertSame(
            [
                ['berth' => '1', 'fee' => $kind === 'sqlite' ? '12.1' : '12.10', 'seal' => '\\x00ff7a', 'note' => 'a "b"', 'ended' => null],
                ['berth' => '2', 'fee' => $kind === 'sqlite' ? '0.3' : '0.30', 'seal' => null, 'note' => 'Très', 'ended' => '2026-01-31'],
            ],
            $rows,
        );
        self::assertSame(
            [['note' => 'Très']],
            $this->drawn(['table' => ['name' => 'berths', 'columns' => ['note'], 'where' => 'berth > 1']]),
        );

        $bound = ['sql' => "SELECT note FROM berths WHERE note = :note AND ':no' <> '\\' -- :no", 'values' => ['note' => 'a "b"']];
        $bound['sql'] = $kind === 'mysql' ? str_replace("'\\'", "'\\\\'", $bound['sql']) : $bound['sql'];
        self::assertSame([['note' => 'a "b"']], $this->drawn($bound));
        $attack = ['values' => ['note' => "' OR 1 = 1 -- \\"]] + $bound;
        self::assertStringContainsString('it gives no row', (string) $this->asked($attack)->problem);
        self::assertStringContainsString('It needs a value for :note', (string) $this->asked(['values' => []] + $bound)->problem);

        foreach ([
            'DELETE FROM berths' => 'begins with SELECT',
            'SELECT nothing FROM berths' => 'nothing',
            'SELECT berth AS a, fee AS a FROM berths' => 'two of its columns are called "a"',
            'SELECT berth FROM berths WHERE berth > 5' => 'it gives no row',
            'WITH RECURSIVE n (i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < 30) SELECT i FROM n' => 'more than 20 rows',
        ] as $sql => $problem) {
            $refused = $this->asked(['sql' => $sql]);
            self::assertSame('refused', $refused->state->value, $sql);
            self::assertStringContainsString($problem, (string) $refused->problem);
            self::assertStringNotContainsString('SQLSTATE', (string) $refused->problem);
        }
        self::assertCount(2, $this->drawn(['sql' => 'SELECT berth FROM berths']), 'Nothing was changed.');
    }

    /** @return iterable<string, array{string}> */
    public static function kinds(): iterable
    {
        yield 'MariaDB' => ['mysql'];
        yield 'SQLite' => ['sqlite'];
    }

    public function test_a_driver_of_odbc_leads_to_tables_and_rows_and_may_only_read(): void
    {
        $database = DB::connection('owner');
        $database->unprepared(
            'CREATE SCHEMA harbour; CREATE TABLE harbour.berths (berth INT PRIMARY KEY, fee DECIMAL(9,2), note TEXT, ended DATE); '.
                "INSERT INTO harbour.berths VALUES (2, 0.30, 'Très', '2026-01-31'), (1, 12.10, 'a \"b\"', NULL)",
        );
        $settings = [
            'label' => 'Old', 'kind' => 'odbc', 'driver' => 'PostgreSQL Unicode', 'host' => '127.0.0.1', 'port' => $this->ours(),
            'database' => $database->getDatabaseName(), 'user' => $database->getConfig('username'),
            'password' => $database->getConfig('password'),
        ];
        $this->actingAs($this->administrator);
        $this->keep(['driver' => '/tmp/any.so'] + $settings)
            ->assertUnprocessable()
            ->assertSee('A driver is named as this machine knows it');
        $this->keep(['driver' => 'None'] + $settings)
            ->assertUnprocessable()
            ->assertDontSee('SQLSTATE');
        $this->keep($settings)->assertCreated();
        $this->actingAs($this->analyst);
        $at = "/datasets/{$this->dataset->id}";
        $this->api('GET', "{$at}/source-tables?source=Old")->assertJsonFragment(['name' => 'harbour.berths', 'kind' => 'table']);
        $this->api('GET', "{$at}/source-columns?source=Old&table=harbour.berths")->assertJsonPath('items.0.isKey', true);
        self::assertSame(
            [
                ['berth' => '1', 'fee' => '12.10', 'note' => 'a "b"', 'ended' => null],
                ['berth' => '2', 'fee' => '0.30', 'note' => 'Très', 'ended' => '2026-01-31'],
            ],
            $this->drawn(['table' => ['name' => 'harbour.berths', 'orderBy' => ['berth']]]),
        );
        $refused = $this->asked(['sql' => 'WITH gone AS (DELETE FROM harbour.berths RETURNING berth) SELECT berth FROM gone']);
        self::assertStringContainsString('read-only', (string) $refused->problem);
        $database->unprepared('DROP SCHEMA harbour CASCADE');
    }

    public function test_what_takes_too_long_or_nobody_waits_for_is_ended_in_the_database_too(): void
    {
        $this->actingAs($this->administrator)->keep(['seconds' => 1] + $this->settings('mysql'))->assertCreated();
        $this->actingAs($this->analyst);
        $refused = $this->asked(['sql' => 'SELECT sleep(60) AS nobody_waits']);
        self::assertStringContainsString('it took more than 1 seconds', (string) $refused->problem);

        $looks = 0;
        $path = storage_path('work/query');
        SourceConnection::query()->firstOrFail()->update(['settings' => array_diff_key($this->settings('mysql'), ['password' => 1])]);
        $bytes = app(Sources::class)->of($this->migration, 'Old')->snapshot(
            'SELECT sleep(60) AS nobody_waits',
            $path,
            static function () use (&$looks): bool {
                return ++$looks < 5;
            },
        );
        self::assertSame([null, false], [$bytes, is_file($path)]);
        self::assertSame(
            [],
            array_filter(
                array_column((array) DB::connection('old')->select('SHOW FULL PROCESSLIST'), 'Info'),
                static fn(mixed $running): bool => is_string($running) && str_contains($running, 'nobody_waits'),
            ),
        );
    }

    private function otherAuthority(): string
    {
        $folder = storage_path('work/other-authority');
        is_dir($folder) || mkdir($folder);

        return DatabaseServer::certify($folder);
    }

    /** The port of the own database, which knows no such user. */
    private function ours(): int
    {
        $port = DB::connection()->getConfig('port');

        return is_numeric($port) ? (int) $port : 0;
    }

    /**
     * @param  array<string, mixed>  $what
     * @return list<array<string, string|null>>
     */
    private function drawn(array $what): array
    {
        $receipt = $this->asked($what);
        self::assertSame('received', $receipt->state->value, (string) $receipt->problem);
        $lines = file(storage_path("chunks/{$receipt->id}"), FILE_IGNORE_NEW_LINES) ?: [];

        /** @var list<array<string, string|null>> */
        return array_map(static fn(string $line): mixed => json_decode($line, true, 4, JSON_THROW_ON_ERROR), $lines);
    }

    /** @param array<string, mixed> $what */
    private function asked(array $what): Receipt
    {
        $id = $this->api('POST', "/datasets/{$this->dataset->id}/snapshots", ['side' => 'source', 'source' => 'Old', ...$what])
            ->assertAccepted()
            ->json('id');
        self::assertIsString($id);

        return Receipt::query()->findOrFail($id);
    }

    /** @return array<string, mixed> */
    private function settings(string $kind): array
    {
        if ($kind === 'sqlite') {
            return ['label' => 'Old', 'kind' => 'sqlite', 'file' => 'old.sqlite', 'rows' => 20];
        }
        self::$server ??= DatabaseServer::begin(
            storage_path('work/mariadb'),
            'CREATE DATABASE old; CREATE TABLE old.berths (berth INT PRIMARY KEY, fee DECIMAL(9,2), seal VARBINARY(9), note TEXT, '.
                'ended DATE) CHARACTER SET utf8mb4; '.
                "INSERT INTO old.berths VALUES (2, 0.30, NULL, 'Très', '2026-01-31'), (1, 12.10, x'00ff7a', 'a \"b\"', NULL); ".
                "CREATE USER reader@'127.0.0.1' IDENTIFIED BY '".
                self::PASSWORD.
                "'; GRANT SELECT, PROCESS ON *.* TO reader@'127.0.0.1'",
        );
        config(['database.connections.old' => [
            'driver' => 'mysql', 'host' => '127.0.0.1', 'port' => self::$server->port, 'database' => 'old', 'username' => 'reader',
            'password' => self::PASSWORD,
        ]]);

        return [
            'label' => 'Old', 'kind' => 'mysql', 'host' => '127.0.0.1', 'port' => self::$server->port, 'database' => 'old',
            'user' => 'reader', 'password' => self::PASSWORD, 'rows' => 20,
        ];
    }

    /**
     * @param  array<string, mixed>  $settings
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function keep(array $settings): TestResponse
    {
        return $this->api('POST', "/migrations/{$this->migration->id}/connections", $settings);
    }

    /**
     * @param  array<string, mixed>  $settings
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function try(array $settings): TestResponse
    {
        return $this->api('POST', "/migrations/{$this->migration->id}/connection-trials", $settings);
    }
}
