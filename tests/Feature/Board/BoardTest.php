<?php

declare(strict_types=1);

namespace Tests\Feature\Board;

use Illuminate\Support\Facades\DB;
use Tests\TestCase;

final class BoardTest extends TestCase
{
    public function test_an_empty_migration_has_no_figures_and_says_so(): void
    {
        $this->dataset->newQuery()->getConnection()->table('plan_drafts')->delete();
        $this->actingAs($this->analyst);

        $this->api('GET', "/migrations/{$this->migration->id}/board")
            ->assertOk()
            ->assertJson([
                'sums' => ['values' => 0, 'agreement' => 'no figure', 'openFindings' => 0, 'openGroups' => 0],
                'datasets' => [['name' => 'Moorings', 'keyColumns' => [], 'tally' => null]],
            ]);
    }

    public function test_sums_the_latest_tally_of_each_dataset(): void
    {
        $this->tallied();
        $this->deliver('target', str_replace('Ann Lee,10.5,', 'Ann  Lee,10.50,', self::NEW));
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $this->dataset = $this->migration->datasets()->create(['name' => 'Berths']);
        $this->tallied("basin,berth,holder,fee\nKB,1,Ann,1\n", "basin,berth,owner,fee,loaded\nKB,1,Ann,2,t\n");

        // Moorings, second tally: 18 values on either side, 5 right. Berths: 2 values, 1 right.
        $this->api('GET', "/migrations/{$this->migration->id}/board")
            ->assertOk()
            ->assertJson(['sums' => ['values' => 20, 'agreement' => '30.00 %', 'openFindings' => 10]]);
    }

    public function test_asks_no_more_of_the_database_for_more_datasets(): void
    {
        $this->tallied();
        $few = $this->queries();
        for ($number = 1; $number <= 6; $number++) {
            $this->dataset = $this->migration->datasets()->create(['name' => "Register {$number}"]);
            $this->tallied();
        }

        self::assertSame($few, $this->queries());
    }

    public function test_a_new_delivery_is_told_on_the_course(): void
    {
        $this->tallied();
        $this->deliver('source', self::OLD);

        $this->api('GET', "/datasets/{$this->dataset->id}")
            ->assertOk()
            ->assertJson(['source' => ['number' => 2], 'tally' => ['isOnLatestDeliveries' => false]]);
    }

    private function queries(): int
    {
        DB::enableQueryLog();
        DB::flushQueryLog();
        $this->api('GET', "/migrations/{$this->migration->id}/board")->assertOk();

        return count(DB::getQueryLog());
    }
}
