<?php

declare(strict_types=1);

namespace Tests\Feature\Start;

use App\Models\PlanDraft;
use App\Models\PlanVersion;
use App\Models\Receipt;
use App\Models\User;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use NineTally\Core\Row\Side;
use Symfony\Component\Process\Process;
use Tests\TestCase;

/**
 * An installation that went the twenty steps that stood before the definitions of today, with two tallies in it, is upgraded by bin/start.
 * It stands in a schema of its own, beside what the other tests use.
 */
final class UpgradeTest extends TestCase
{
    private const DUMP = __DIR__.'/../../Support/installation-after-twenty-steps.sql.gz';

    protected function setUp(): void
    {
        parent::setUp();
        DB::connection('owner')->statement('DROP SCHEMA IF EXISTS upgraded CASCADE');
        $sql = strtr((string) gzdecode((string) file_get_contents(self::DUMP)), [
            'public.' => 'upgraded.',
            "'public'" => "'upgraded'",
            'SCHEMA public' => 'SCHEMA upgraded',
            // Functions of that time name each other without their schema.
            "set_config('search_path', ''" => "set_config('search_path', 'upgraded'",
        ]);
        $owner = config()->array('database.connections.owner');
        $psql = new Process(
            [
                'psql',
                '-X',
                '-q',
                '-v',
                'ON_ERROR_STOP=1',
                '-h',
                $owner['host'],
                '-p',
                $owner['port'],
                '-U',
                'tally_owner',
                '-d',
                $owner['database'],
            ],
            env: ['PGPASSWORD' => $owner['password']],
            input: $sql,
        );
        $psql->mustRun();
        $this->goTo('upgraded');
    }

    protected function tearDown(): void
    {
        $this->goTo('public');
        DB::connection('owner')->statement('DROP SCHEMA upgraded CASCADE');
        parent::tearDown();
    }

    public function test_has_what_a_new_installation_has_and_keeps_all_that_it_held(): void
    {
        $held = [];
        foreach (
            [
                'tallies', 'patterns', 'row_findings', 'cell_findings', 'rulings', 'carried_rulings', 'comments', 'deliveries',
                'plan_versions', 'users',
            ]
            as $table
        ) {
            $held[$table] = DB::table($table)->count();
        }
        self::assertSame([2, 20, 2], [$held['tallies'], $held['row_findings'], $held['users']], 'What the dump holds.');
        self::assertSame(0, Artisan::call('migrate', ['--database' => 'owner', '--force' => true]), Artisan::output());

        self::assertSame($this->definitions('public'), $this->definitions('upgraded'));
        foreach ($held as $table => $rows) {
            self::assertSame($rows, DB::table($table)->count(), $table);
        }
        $this->actingAs(User::query()->where('name', 'Ruth Osei')->firstOrFail());
        $tally = $this->api('GET', '/tallies/2')->assertOk();
        $tally->assertJson([
            'figures' => ['rowsArrived' => '50.00 %'],
            'rows' => ['source' => ['delivered' => 9, 'left_out' => 1, 'condensed' => 0, 'prepared' => 8], 'target' => ['prepared' => 5]],
        ]);
        $this->api('GET', '/tallies/2/records/2')->assertOk()->assertJsonPath('key', 'KB,015');
        $draft = PlanDraft::query()->firstOrFail();
        self::assertSame(
            ['leave-out-columns', 3],
            [$draft->rules(Side::Source)->preparation->steps[1]['kind'], $draft->document['formatVersion']],
        );
        self::assertStringContainsString('"tolerance":{"most":"0.01","by":"absolute"}', (string) json_encode($draft->document));
        $this->api('GET', '/datasets/1/plan-versions')->assertOk()->assertJsonPath('startingPlans.0.name', 'Registers');
        self::assertSame('tidy-text', PlanVersion::query()->firstOrFail()->plan()->source->preparation->steps[2]['kind']);
        self::assertSame(
            ['south'],
            array_values(Receipt::query()->where('state', 'received')->firstOrFail()->taking['terms']['partLabels'] ?? []),
        );
        self::assertSame(['failed', 1], [DB::table('workbooks')->value('state'), DB::table('jobs')->count()]);
        // A second time there is nothing to do.
        self::assertSame(0, Artisan::call('migrate', ['--database' => 'owner', '--force' => true]), Artisan::output());
    }

    public function test_an_older_one_is_told_the_way_and_stays_as_it_is(): void
    {
        DB::connection('owner')->table('schema_changes')->orderByDesc('id')->limit(1)->delete();
        try {
            Artisan::call('migrate', ['--database' => 'owner', '--force' => true]);
            self::fail('It was upgraded.');
        } catch (\RuntimeException $refusal) {
            self::assertStringContainsString('older than the version of 29 November 2026', $refusal->getMessage());
        }
        self::assertSame(1, DB::table('plan_templates')->count());
    }

    private function goTo(string $schema): void
    {
        foreach (['application', 'owner'] as $connection) {
            config(["database.connections.{$connection}.search_path" => $schema]);
            DB::purge($connection);
        }
    }

    /**
     * @return array<string, list<string>> of a schema, without the names that nobody uses: columns, constraints, indexes, functions, rights
     */
    private function definitions(string $schema): array
    {
        $of = static function (string $query) use ($schema): array {
            /** @var list<object> $rows */
            $rows = DB::connection('owner')->select($query, [$schema]);
            $line = static fn(object $row): string => str_replace(
                ["{$schema}.", "'{$schema}'"],
                ['', "'schema'"],
                (string) json_encode($row),
            );

            // Defaults were written with their type, and what functions do in other lines.
            return array_map(
                static fn(object $row): string => (string) preg_replace(["/'(\d+)'::\w+/", '/(\s|\\\\n|-- )+/'], ['$1', ' '], $line($row)),
                $rows,
            );
        };
        $tables =
            "FROM pg_class c JOIN pg_namespace n ON n.oid = relnamespace WHERE nspname = ? AND relname !~ '_findings_\\d|^schema_changes'";

        return [
            'columns' => $of(
                "SELECT table_name, column_name, data_type, datetime_precision, is_nullable, column_default, generation_expression ".
                    "FROM information_schema.columns WHERE table_schema = ? AND table_name !~ '_findings_\\d|^schema_changes' ORDER BY ".
                    "1, 2",
            ),
            'constraints' => $of(
                "SELECT relname, pg_get_constraintdef(k.oid) AS definition FROM pg_constraint k, LATERAL (SELECT relname {$tables} ".
                    "AND c.oid = conrelid) t ORDER BY 1, 2",
            ),
            'indexes' => $of(
                "SELECT relname, regexp_replace(pg_get_indexdef(indexrelid), 'INDEX \\S+ ON', 'INDEX ON') AS definition ".
                    "FROM pg_index, LATERAL (SELECT relname {$tables} AND c.oid = indrelid) t ORDER BY 1, 2",
            ),
            'rights' => $of("SELECT relname, relacl::text {$tables} AND relkind <> 'i' AND relkind <> 'I' ORDER BY 1"),
            'functions' => $of(
                'SELECT pg_get_functiondef(pg_proc.oid) AS definition, proacl::text FROM pg_proc JOIN pg_namespace n '.
                    'ON n.oid = pronamespace WHERE nspname = ? ORDER BY 1',
            ),
        ];
    }
}
