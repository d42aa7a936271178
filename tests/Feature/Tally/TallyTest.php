<?php

declare(strict_types=1);

namespace Tests\Feature\Tally;

use App\Models\Run;
use App\Models\Tally;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

final class TallyTest extends TestCase
{
    use QueuedRuns;

    public function test_a_run_ends_in_a_numbered_tally_with_the_sums_of_both_sides(): void
    {
        $tally = $this->tallied();

        $this->api('GET', "/tallies/{$tally->id}")
            ->assertOk()
            ->assertJson([
                'number' => 1,
                'planVersion' => 1,
                'rows' => [
                    'source' => [
                        'read' => 9,
                        'refused' => 1,
                        'delivered' => 8,
                        'agreed' => 0,
                        'changed' => 4,
                        'missing' => 1,
                        'repeated' => 2,
                        'unkeyed' => 1,
                    ],
                    'target' => [
                        'read' => 5,
                        'refused' => 0,
                        'delivered' => 5,
                        'agreed' => 0,
                        'changed' => 4,
                        'extra' => 1,
                        'repeated' => 0,
                        'unkeyed' => 0,
                    ],
                ],
                'cells' => ['compared' => 8, 'identical' => 3, 'changed' => 3, 'blanked' => 1, 'filled' => 1],
                'figures' => ['rowsArrived' => '50.00 %', 'ofArrived' => '37.50 %', 'agreement' => '16.67 %'],
                'findings' => 11,
                'openFindings' => 11,
            ]);
        $this->api('GET', "/datasets/{$this->dataset->id}")
            ->assertOk()
            ->assertJson(['run' => null, 'tally' => ['number' => 1, 'isOnLatestDeliveries' => true]]);
        $this->api('GET', "/migrations/{$this->migration->id}/board")
            ->assertOk()
            ->assertJsonPath('datasets.0.tally.number', 1);
    }

    public function test_the_same_plan_keeps_its_version_and_another_makes_a_new_one(): void
    {
        $this->tallied();
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $this->match([['source' => 'fee', 'target' => 'fee']]);
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();

        $this->api('GET', "/datasets/{$this->dataset->id}/tallies")->assertOk();
        self::assertSame(
            [1, 1, 2],
            Tally::query()
                ->with('planVersion')
                ->orderBy('number')
                ->get()
                ->map(static fn(Tally $tally): int => $tally->planVersion->number)
                ->all(),
        );
    }

    public function test_a_run_that_ends_while_it_is_asked_about_hides_no_tally(): void
    {
        $this->prepared();
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $isToEnd = true;
        DB::listen(function (QueryExecuted $query) use (&$isToEnd): void {
            if ($isToEnd && preg_match('/from "(runs|tallies)" where "\1"\."dataset_id"/', $query->sql) === 1) {
                $isToEnd = false;
                Artisan::call('queue:work', ['--stop-when-empty' => true]);
            }
        });

        $course = $this->api('GET', "/datasets/{$this->dataset->id}");

        self::assertFalse($isToEnd);
        // Who sees that it goes on asks again; who is told that nothing goes on must see what came of it.
        self::assertTrue($course->json('run.isOver') === false || $course->json('tally.number') === 1);
    }

    public function test_a_second_click_finds_the_run_that_goes_on(): void
    {
        $this->prepared();
        $first = $this->api('POST', "/datasets/{$this->dataset->id}/runs")->json('id');

        $this->postJson("/api/v1/datasets/{$this->dataset->id}/runs")->assertOk()->assertJson(['id' => $first, 'state' => 'queued']);
        self::assertSame(1, Run::query()->count());
    }

    #[DataProvider('neverOverwritten')]
    public function test_the_serving_role_may_not_overwrite(string $table): void
    {
        $this->tallied();
        foreach (["UPDATE {$table} SET tally_id = tally_id", "DELETE FROM {$table}", "TRUNCATE {$table}"] as $statement) {
            try {
                DB::statement(
                    str_replace(
                        'SET tally_id = tally_id',
                        'SET '.
                            ($table === 'deliveries' || $table === 'plan_versions' || $table === 'tallies'
                                ? 'dataset_id = dataset_id'
                                : 'tally_id = tally_id'),
                        $statement,
                    ),
                );
                self::fail("{$statement} was allowed.");
            } catch (QueryException $refused) {
                self::assertSame('42501', $refused->getCode());
            }
        }
    }

    /** @return iterable<string, array{string}> */
    public static function neverOverwritten(): iterable
    {
        foreach (['deliveries', 'plan_versions', 'tallies', 'patterns', 'row_findings', 'cell_findings', 'rulings', 'reports'] as $table) {
            yield $table => [$table];
        }
    }

    public function test_no_value_of_a_cell_reaches_a_log(): void
    {
        $marker = 'Qz7-marker-'.bin2hex(random_bytes(4));
        $this->tallied(str_replace('Ezekiel Thornøy', $marker, self::OLD)."\xFF{$marker}\n");
        try {
            DB::insert(
                'INSERT INTO rulings (dataset_id, tally_id, scope, reason, findings, user_id, created_at) VALUES (1, 1, ?, ?, 1, 1, now())',
                ['nonsense', $marker],
            );
        } catch (QueryException $exception) {
            report($exception);
        }
        $this->getJson("/api/v1/tallies/1/keys?find={$marker}");

        $home = dirname(app()->environmentPath());
        $logs = array_filter(
            [...(array) glob("{$home}/run/*.log"), ...(array) glob("{$home}/app/storage/logs/*"), "{$home}/pg/log"],
            static fn(mixed $log): bool => is_string($log) && is_readable($log),
        );
        self::assertNotSame([], $logs);
        foreach ($logs as $log) {
            self::assertStringNotContainsString($marker, (string) file_get_contents((string) $log), (string) $log);
        }
    }
}
