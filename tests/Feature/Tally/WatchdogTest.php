<?php

declare(strict_types=1);

namespace Tests\Feature\Tally;

use App\Models\Delivery;
use App\Models\Receipt;
use App\Models\ReceiptState;
use App\Models\Run;
use App\Models\RunState;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/** What a dead worker held is found by looking, whatever the worker was doing. */
final class WatchdogTest extends TestCase
{
    public function test_a_delivery_whose_reader_died_is_read_again(): void
    {
        $this->actingAs($this->analyst);
        $receipt = $this->announce('source', 'old.csv', strlen(self::OLD));
        $this->chunk($receipt, 0, self::OLD);
        // The job was taken and its worker died: no job is left, and the receipt gives no sign of life.
        DB::table('receipts')
            ->where('id', $receipt)
            ->update([
                'state' => 'reading',
                'taking' => json_encode(['receipts' => [$receipt], 'terms' => []]),
                'updated_at' => now()->subMinute(),
            ]);

        Artisan::call('nine-tally:watch --once');

        self::assertSame([1, ReceiptState::Delivered], [Delivery::query()->count(), Receipt::query()->findOrFail($receipt)->state]);
    }

    public function test_a_delivery_that_is_being_read_is_left_alone(): void
    {
        $this->actingAs($this->analyst);
        $receipt = $this->announce('source', 'old.csv', strlen(self::OLD));
        $this->chunk($receipt, 0, self::OLD);
        DB::table('receipts')->where('id', $receipt)->update(['state' => 'reading']);

        Artisan::call('nine-tally:watch --once');

        self::assertSame(0, Delivery::query()->count());
    }

    public function test_a_run_whose_job_was_lost_is_queued_again(): void
    {
        $this->tallied();
        $run = $this->waitingRun();
        Artisan::call('nine-tally:watch --once');
        self::assertSame(RunState::Queued, $run->refresh()->state, 'It has not waited long enough to be forgotten.');

        Run::query()->whereKey($run->id)->update(['created_at' => now()->subMinute()]);
        Artisan::call('nine-tally:watch --once');

        self::assertSame([RunState::Done, 1], [$run->refresh()->state, $run->attempts]);
    }

    public function test_a_run_that_was_to_be_cancelled_when_its_worker_died_is_cancelled(): void
    {
        $this->tallied();
        $run = $this->waitingRun();
        Run::query()
            ->whereKey($run->id)
            ->update([
                'state' => 'matching',
                'lease' => '01a21258-1c44-731d-af75-d812359fe7c2',
                'lease_expires_at' => now()->subSecond(),
                'cancel_requested_at' => now(),
            ]);

        Artisan::call('nine-tally:watch --once');

        self::assertSame(RunState::Cancelled, $run->refresh()->state);
    }

    public function test_a_lease_that_holds_is_respected(): void
    {
        $this->tallied();
        $run = $this->waitingRun();
        Run::query()
            ->whereKey($run->id)
            ->update([
                'state' => 'matching',
                'lease' => '01a21258-1c44-731d-af75-d812359fe7c2',
                'lease_expires_at' => now()->addSeconds(5),
            ]);

        Artisan::call('nine-tally:watch --once');

        self::assertSame(RunState::Matching, $run->refresh()->state);
    }

    /** A run that waits without a job, as when a worker died between taking the job and taking the lease. */
    private function waitingRun(): Run
    {
        config(['queue.default' => 'null', 'queue.connections.null' => ['driver' => 'null']]);
        $run = Run::query()->findOrFail($this->number($this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated(), 'id'));
        config(['queue.default' => 'sync']);

        return $run;
    }
}
