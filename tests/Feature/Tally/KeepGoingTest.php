<?php

declare(strict_types=1);

namespace Tests\Feature\Tally;

use App\Actions\Work\KeepGoing;
use App\Models\Delivery;
use App\Models\Receipt;
use App\Models\ReceiptState;
use App\Models\Run;
use App\Models\RunState;
use App\Models\Workbook;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Tests\TestCase;

/** What a queue has lost is found by looking, whatever it was; what a queue still holds is left to it. */
final class KeepGoingTest extends TestCase
{
    public function test_a_delivery_whose_job_was_lost_is_read(): void
    {
        $receipt = $this->lostReceipt();
        app(KeepGoing::class)();
        self::assertSame(0, Delivery::query()->count(), 'It has not waited long enough to be lost.');

        DB::table('receipts')->update(['updated_at' => now()->subMinute()]);
        app(KeepGoing::class)();

        self::assertSame([1, ReceiptState::Delivered], [Delivery::query()->count(), Receipt::query()->findOrFail($receipt)->state]);
    }

    public function test_nothing_is_lost_while_the_queue_holds_jobs(): void
    {
        $this->lostReceipt();
        DB::table('receipts')->update(['updated_at' => now()->subMinute()]);
        config(['queue.default' => 'database']);
        DB::table('jobs')->insert([
            'queue' => 'default',
            'payload' => '{}',
            'attempts' => 1,
            'reserved_at' => time(),
            'available_at' => time(),
            'created_at' => time(),
        ]);
        app(KeepGoing::class)();

        self::assertSame(1, DB::table('jobs')->count());
    }

    public function test_a_run_whose_job_was_lost_is_begun(): void
    {
        $this->tallied();
        $run = $this->waitingRun();
        app(KeepGoing::class)();
        self::assertSame(RunState::Queued, $run->refresh()->state, 'It has not waited long enough to be lost.');

        Run::query()->whereKey($run->id)->update(['created_at' => now()->subMinute()]);
        app(KeepGoing::class)();

        self::assertSame([RunState::Done, 1], [$run->refresh()->state, $run->attempts]);
    }

    public function test_a_file_that_only_its_job_knew_says_that_it_is_to_be_asked_for_again(): void
    {
        $workbook = Workbook::query()->create([
            'id' => (string) Str::uuid7(),
            'user_id' => $this->analyst->id,
            'name' => 'differences.xlsx',
            'state' => 'asked',
        ]);
        DB::table('workbooks')->update(['updated_at' => now()->subMinute()]);
        app(KeepGoing::class)();

        self::assertSame('failed', $workbook->refresh()->state);
        self::assertStringContainsString('Ask again', (string) $workbook->problem);
    }

    public function test_what_a_run_left_behind_is_cleared_up_when_it_is_over(): void
    {
        $this->tallied();
        $run = $this->waitingRun();
        $folder = storage_path("work/run-{$run->id}/tasks");
        mkdir($folder, 0700, true);
        DB::table('run_tasks')->insert(['run_id' => $run->id, 'name' => 'source-0', 'phase' => 'scan', 'place' => 1]);
        DB::statement('SELECT open_findings(99)');
        $run->update(['entering_tally_id' => 99]);
        app(KeepGoing::class)();
        self::assertDirectoryExists($folder, 'Its run goes on.');
        self::assertNotNull(DB::scalar("SELECT to_regclass('row_findings_99')"));

        Run::query()->whereKey($run->id)->update(['state' => RunState::Failed->value]);
        app(KeepGoing::class)();
        self::assertDirectoryDoesNotExist(dirname($folder));
        self::assertSame(0, DB::table('run_tasks')->count());
        self::assertNull(DB::scalar("SELECT to_regclass('row_findings_99')"));
    }

    private function lostReceipt(): string
    {
        $this->actingAs($this->analyst);
        $receipt = $this->announce('source', 'old.csv', strlen(self::OLD));
        $this->chunk($receipt, 0, self::OLD);
        // The job was taken and its worker died: no job is left, and the receipt gives no sign of life.
        DB::table('receipts')
            ->where('id', $receipt)
            ->update(['state' => 'reading', 'taking' => json_encode(['receipts' => [$receipt], 'terms' => []])]);

        return $receipt;
    }

    /** A run that waits without a job. */
    private function waitingRun(): Run
    {
        config(['queue.default' => 'null', 'queue.connections.null' => ['driver' => 'null']]);
        $run = Run::query()->findOrFail($this->number($this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated(), 'id'));
        config(['queue.default' => 'sync']);

        return $run;
    }
}
