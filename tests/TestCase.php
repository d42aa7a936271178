<?php

declare(strict_types=1);

namespace Tests;

use App\Models\Dataset;
use App\Models\Migration;
use App\Models\Role;
use App\Models\User;
use Illuminate\Contracts\Console\Kernel;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Testing\TestCase as LaravelTestCase;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;
use Illuminate\Testing\TestResponse;
use NineTally\Core\Tally\Workspace;
use Tests\Support\Contract;
use Tests\Support\Deliveries;

/** A test through HTTP on PostgreSQL. Rows that COPY writes are not seen inside a transaction, so tables are emptied instead. */
abstract class TestCase extends LaravelTestCase
{
    use Deliveries;

    /** Rows of a table from which on it is quicker to truncate it than to delete them. */
    private const MANY = 500;

    /** Whether the demo stands in the database: until a test begins with nothing. */
    protected static bool $isOnDemo = false;

    protected User $analyst;

    protected User $owner;

    protected Migration $migration;

    protected Dataset $dataset;

    public function createApplication(): Application
    {
        $application = require dirname(__DIR__).'/bootstrap/app.php';
        if (! $application instanceof Application) {
            throw new \LogicException('bootstrap/app.php returns the application.');
        }
        $application->make(Kernel::class)->bootstrap();

        return $application;
    }

    protected function setUp(): void
    {
        parent::setUp();
        // The last guard before tables are emptied: this must be the home of the tests, never that of an installation.
        if (preg_match('#/var/test(/\d+)?/app$#D', $this->app->environmentPath()) !== 1) {
            throw new \LogicException('Run the tests with bin/test: they empty the database that they find.');
        }
        config(['queue.default' => 'sync']);
        if ($this->goesOn()) {
            return;
        }
        self::$isOnDemo = false;
        $this->emptyTables();
        // Runs begin with the number 1 in each test: what the last one left must not be taken for this one's.
        File::cleanDirectory(storage_path('chunks'));
        File::cleanDirectory(storage_path('prepared'));
        foreach (glob(storage_path('work/run-*')) ?: [] as $folder) {
            Workspace::at($folder)->remove();
        }
        $this->analyst = $this->person('Ruth Osei');
        $this->owner = $this->person('Tove Lindqvist');
        $this->migration = Migration::query()->create([
            'name' => 'Wherrymoor cutover',
            'source_label' => 'Old register',
            'target_label' => 'New register',
        ]);
        $this->migration->memberships()->create(['user_id' => $this->analyst->id, 'role' => Role::Analyst]);
        $this->migration->memberships()->create(['user_id' => $this->owner->id, 'role' => Role::DataOwner]);
        $this->dataset = $this->migration->datasets()->create(['name' => 'Moorings']);
    }

    /** Whether the test goes on where another of its class ended, for what both need takes long to make. */
    protected function goesOn(): bool
    {
        return false;
    }

    protected function tearDown(): void
    {
        // Each test has an application, and with it a connection, of its own.
        DB::purge();
        parent::tearDown();
    }

    protected function person(string $name): User
    {
        return User::query()
            ->create([
                'name' => $name,
                'email' => strtolower(str_replace(' ', '.', $name)).'@wherrymoor.example',
                'password' => 'kept by the lock house',
            ])
            ->refresh();
    }

    /**
     * Calls the API and holds the answer against the contract.
     *
     * @param  array<string, mixed>|null  $body
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    protected function api(string $method, string $path, ?array $body = null): TestResponse
    {
        $response = $this->json($method, "/api/v1{$path}", $body ?? []);
        Contract::load()->mustAllow(
            $method,
            $path,
            $response->getStatusCode(),
            (string) $response->getContent(),
            (string) $response->headers->get('Content-Type'),
        );

        return $response;
    }

    /**
     * A part of an answer that is a list of objects.
     *
     * @param  TestResponse<\Symfony\Component\HttpFoundation\Response>  $response
     * @return list<array<string, mixed>>
     */
    protected function objects(TestResponse $response, string $path): array
    {
        $part = $response->json($path);
        self::assertIsArray($part);
        self::assertContainsOnly('array', $part);

        /** @var list<array<string, mixed>> $part */
        return $part;
    }

    /** @param TestResponse<\Symfony\Component\HttpFoundation\Response> $response */
    protected function number(TestResponse $response, string $path): int
    {
        $part = $response->json($path);
        self::assertIsInt($part);

        return $part;
    }

    private function emptyTables(): void
    {
        $owner = DB::connection('owner');
        /** @var list<object{name: string}> $tables */
        $tables = $owner->select(
            "SELECT relname AS name FROM pg_class JOIN pg_namespace n ON n.oid = relnamespace WHERE nspname = 'public' AND relkind = 'r' ".
                "AND relname <> 'schema_changes'",
        );
        foreach ($tables as $position => $table) {
            if (preg_match('/_findings_\d+$/', $table->name) === 1) {
                $owner->statement("DROP TABLE {$table->name}");
                unset($tables[$position]);
            }
        }
        $names = array_column($tables, 'name');
        $count = static fn(string $name): string => '(SELECT count(*) FROM (SELECT FROM '.$name.' LIMIT '.self::MANY.") few) AS {$name}";
        $few = $owner->selectOne('SELECT '.implode(', ', array_map($count, $names)));
        $filled = array_filter((array) $few);
        if (array_filter($filled, static fn(mixed $rows): bool => $rows >= self::MANY) !== []) {
            $owner->statement('TRUNCATE '.implode(', ', $names).' RESTART IDENTITY CASCADE');
        } elseif ($filled !== []) {
            // In one statement, for what refers to each other is looked at when it ends. To truncate makes each file of each table anew.
            $delete = static fn(string $name): string => "of_{$name} AS (DELETE FROM {$name})";
            $owner->statement('WITH '.implode(', ', array_map($delete, array_keys($filled))).' SELECT 1');
        }
        $owner->statement(
            "SELECT setval(format('%I.%I', schemaname, sequencename)::regclass, start_value, false) FROM pg_sequences ".
                "WHERE schemaname = 'public' AND last_value IS NOT NULL AND sequencename NOT LIKE 'schema_changes%'",
        );
        $owner->disconnect();
    }
}
