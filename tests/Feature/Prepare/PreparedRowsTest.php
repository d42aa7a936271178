<?php

declare(strict_types=1);

namespace Tests\Feature\Prepare;

use Tests\TestCase;

/** The rows of a side when its steps have run on all of them. */
final class PreparedRowsTest extends TestCase
{
    use WideAndLong;

    public function test_a_tally_runs_the_steps_first_and_its_records_say_where_they_were_delivered(): void
    {
        $this->keep([self::LEAVE_OUT, self::FOLD]);
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $tally = $this->dataset->latestTally();
        self::assertNotNull($tally, (string) $this->dataset->latestRun()?->problem);

        $this->api('GET', "/tallies/{$tally->id}")->assertJson([
            'rows' => ['source' => ['delivered' => 3, 'left_out' => 1, 'made' => 2, 'prepared' => 4, 'agreed' => 3, 'changed' => 1]],
        ]);
        $report = $this->get("/api/v1/tallies/{$tally->id}/report")
            ->assertOk()
            ->getContent();
        self::assertIsString($report);
        self::assertStringContainsString('Columns into rows: apr and may, as month and charge', $report);
        self::assertStringContainsString('<small>the totals</small>', $report);
        $this->api('GET', "/tallies/{$tally->id}/records/1")->assertJson([
            'key' => 'KB,9-12 m,apr',
            'sourceLine' => 2,
            'targetLine' => 3,
            'fields' => [[], [], [], ['source' => 'charge', 'sourceValue' => '41.20', 'targetValue' => '41.2']],
        ]);
    }

    public function test_a_large_side_is_tried_on_a_sample_until_it_has_been_run_whole_and_is_prepared_once(): void
    {
        $this->deliver(
            'source',
            "basin,berth\n".
                implode('', array_map(static fn(int $row): string => ($row % 10 === 0 ? '' : 'KB').",{$row}\n", range(1, 12_000))),
        );
        $this->keep([self::LEAVE_OUT], [['source' => 'basin', 'target' => 'basin']]);
        $tried = $this->trial([self::LEAVE_OUT], 'a')->assertJson(['rows' => 12_000, 'isWhole' => false, 'isBeginning' => false]);
        $sample = $this->number($tried, 'sampleRows');
        self::assertEqualsWithDelta(4_000, $sample, 400);
        self::assertEqualsWithDelta(
            0.1,
            $this->number($tried, 'steps.0.figures.leftOut') / $sample,
            0.03,
            'The sample lies across the delivery.',
        );

        $this->api('POST', "/datasets/{$this->dataset->id}/prepared-sides", ['side' => 'source'])->assertAccepted();
        $this->trial([self::LEAVE_OUT], 'a')->assertJson([
            'isWhole' => true,
            'readyRows' => 10_800,
            'steps' => [['figures' => ['in' => 12_000, 'leftOut' => 1_200]]],
        ]);
        $made = glob(storage_path('prepared/*'), GLOB_ONLYDIR);
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        self::assertSame($made, glob(storage_path('prepared/*'), GLOB_ONLYDIR), 'The tally takes what was prepared before.');
        self::assertSame(1_200, $this->dataset->latestTally()?->summary['rows']['source']['left_out']);
    }

    public function test_the_prepared_side_is_taken_away_with_the_same_bytes_each_time(): void
    {
        $this->keep([self::LEAVE_OUT, self::FOLD]);
        $taken = fn(string $as): string => $this->get("/api/v1/datasets/{$this->dataset->id}/prepared-rows?side=source&as={$as}")
            ->assertOk()
            ->streamedContent();

        self::assertSame(
            "basin,band,month,charge\nKB,9-12 m,apr,41.20\nKB,9-12 m,may,41.20\nLM,5-9 m,apr,44\nLM,5-9 m,may,\n",
            $taken('csv'),
        );
        self::assertSame('{"basin":"KB","band":"9-12 m","month":"apr","charge":"41.20"}', strtok($taken('json-lines'), "\n"));
        self::assertSame($taken('csv'), $taken('csv'));
    }

    public function test_rows_that_a_step_leaves_out_are_listed_with_it(): void
    {
        $this->keep([self::LEAVE_OUT, self::FOLD]);
        $listed = $this->api('GET', "/datasets/{$this->dataset->id}/left-out-rows?side=source&step=".self::LEAVE_OUT['id'])->assertOk();

        self::assertSame([1, 1, null], [$listed->json('step'), $listed->json('total'), $listed->json('next')]);
        self::assertCount(1, $this->objects($listed, 'rows'));
        $this->api('GET', "/datasets/{$this->dataset->id}/left-out-rows?side=source&step=gone")
            ->assertConflict()
            ->assertJson(['code' => 'no-such-step']);
    }

    public function test_a_prepared_side_that_nobody_uses_is_cleared_up_and_made_again(): void
    {
        $this->keep([self::LEAVE_OUT, self::FOLD]);
        $list = fn() => $this->api(
            'GET',
            "/datasets/{$this->dataset->id}/left-out-rows?side=source&step=".self::LEAVE_OUT['id'],
        )->assertOk();
        $sides = $this->app->make(\App\Adapters\Deliveries\PreparedSides::class);
        // What other tests left behind.
        $sides->clearUp(-60);
        $list();

        self::assertSame(0, $sides->clearUp(60));
        self::assertGreaterThan(0, $sides->clearUp(-60));
        $list();
    }
}
