<?php

declare(strict_types=1);

namespace Tests\Feature\Start;

use App\Adapters\Storage\Room;
use App\Problems\NoRoom;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;
use Tests\TestCase;

/** A full disk and a database that is away are said in words, and nothing is half-written. */
final class WithoutRoomTest extends TestCase
{
    public function test_what_will_not_fit_is_not_begun(): void
    {
        $this->actingAs($this->analyst);
        $this->api('POST', "/datasets/{$this->dataset->id}/receipts", [
            'side' => 'source',
            'fileName' => 'huge.csv',
            'bytes' => 9_000_000_000_000_000,
        ])
            ->assertStatus(507)
            ->assertJson(['code' => 'no-room'])
            ->assertSee('This needs about');
        self::assertSame(0, DB::table('receipts')->count());
        $this->expectException(NoRoom::class);
        app(Room::class)->mustHave(PHP_INT_MAX - 1_000_000_000);
    }

    public function test_a_chunk_that_cannot_be_written_says_so_and_comes_again(): void
    {
        $this->actingAs($this->analyst);
        $receipt = $this->announce('source', 'old.csv', strlen(self::OLD));
        // Its place is taken by a folder, so it cannot be written.
        mkdir(storage_path("chunks/{$receipt}"));
        File::cleanDirectory(storage_path('logs'));
        $this->chunk($receipt, 0, self::OLD)->assertStatus(507)->assertJson(['code' => 'no-room']);
        $logs = array_map(static fn(\SplFileInfo $log): string => $log->getPathname(), File::files(storage_path('logs')));
        self::assertStringContainsString('NoRoom', implode('', array_map(file_get_contents(...), $logs)));
        rmdir(storage_path("chunks/{$receipt}"));

        $this->chunk($receipt, 0, self::OLD)->assertOk()->assertJson(['state' => 'received']);
    }

    public function test_a_database_that_is_away_is_named_and_asked_again_in_a_moment(): void
    {
        $this->actingAs($this->analyst);
        $port = config('database.connections.application.port');
        config(['database.connections.application.port' => '1']);
        DB::purge('application');

        $answer = $this->getJson("/api/v1/datasets/{$this->dataset->id}")->assertStatus(503)->assertJson(['code' => 'database-gone']);
        self::assertSame('3', $answer->headers->get('Retry-After'));
        config(['database.connections.application.port' => $port]);
        DB::purge('application');
        $this->api('GET', "/datasets/{$this->dataset->id}")->assertOk();
    }
}
