<?php

declare(strict_types=1);

namespace Tests\Feature\Access;

use App\Adapters\Queue\WorkerSigns;
use App\Models\Run;
use App\Models\User;
use App\Models\Workbook;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Tests\Feature\Tally\QueuedRuns;
use Tests\TestCase;

/** What an administrator sees of the work that goes on, and may do about it; nobody else does. */
final class WorkTest extends TestCase
{
    use QueuedRuns;

    public function test_queues_workers_and_what_was_set_aside_are_told_and_nothing_of_what_is_in_a_migration(): void
    {
        $run = $this->queued();
        app(WorkerSigns::class)->begins('quick,default,run', 'WorkOnRun');
        $id = (string) Str::uuid7();
        Workbook::query()->create(['id' => $id, 'user_id' => $this->analyst->id, 'name' => 'x.xlsx', 'state' => 'failed']);
        $this->actingAs($this->administrator());

        $work = $this->api('GET', '/work')->assertOk();
        $work->assertJson([
            'queues' => [['name' => 'quick', 'waiting' => 0], ['name' => 'default'], ['name' => 'run', 'waiting' => 1, 'atWork' => 0]],
            'workers' => [['doing' => 'WorkOnRun', 'secondsSilent' => 0]],
            'runs' => [['id' => $run->id, 'phase' => null]],
            'setAside' => [['kind' => 'file']],
        ]);
        self::assertGreaterThan(0, $work->json('disk.free'));
        self::assertStringNotContainsString('Moorings', (string) $work->getContent());
        $this->actingAs($this->analyst)->api('GET', '/work')->assertForbidden();
    }

    public function test_a_run_is_ended_and_one_that_failed_is_run_again_for_whoever_started_it(): void
    {
        $run = $this->queued();
        $this->actingAs($this->administrator());
        $this->api('POST', "/work/runs/{$run->id}/end")->assertNoContent();
        self::assertSame('cancelled', $run->refresh()->state->value);

        $run->update(['state' => 'failed']);
        $this->api('POST', "/work/runs/{$run->id}/retry")->assertNoContent();
        $again = Run::query()->latest('id')->firstOrFail();
        self::assertSame([$run->id + 1, $this->analyst->id], [$again->id, $again->user_id]);
        $this->actingAs($this->analyst)->api('POST', "/work/runs/{$again->id}/end")->assertForbidden();
    }

    public function test_a_worker_is_seen_while_it_is_there(): void
    {
        $this->queued();
        Artisan::call('queue:work --once --queue=run');

        self::assertSame([WorkerSigns::id()], DB::table('workers')->pluck('id')->all());
        DB::table('workers')->update(['seen_at' => now()->subMinutes(5)]);
        app(WorkerSigns::class)->clearUp(60);
        self::assertSame(0, DB::table('workers')->count());
    }

    private function administrator(): User
    {
        $person = $this->person('Greta Holm');
        $person->update(['is_administrator' => true]);

        return $person->refresh();
    }
}
