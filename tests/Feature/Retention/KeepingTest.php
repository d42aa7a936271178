<?php

declare(strict_types=1);

namespace Tests\Feature\Retention;

use App\Actions\Access\TrailChain;
use App\Actions\Retention\RemoveOldPacks;
use App\Adapters\Storage\BlobStore;
use App\Models\Pack;
use App\Models\Role;
use App\Models\TrailDetail;
use App\Models\TrailEntry;
use Illuminate\Support\Facades\Artisan;
use Tests\Feature\Sign\Signs;
use Tests\TestCase;

/** How long things are kept, and for whom. */
final class KeepingTest extends TestCase
{
    use Signs;

    public function test_packs_go_when_they_are_older_than_the_migration_keeps_them_and_their_seals_stay(): void
    {
        $tally = $this->tallied();
        $this->api('POST', "/tallies/{$tally->id}/pack-orders")->assertAccepted();
        $this->travel(40)->days();
        $this->api('POST', "/tallies/{$tally->id}/pack-orders")->assertAccepted();
        app(RemoveOldPacks::class)();
        $kept = fn(): array => array_column($this->objects($this->api('GET', "/tallies/{$tally->id}/packs"), 'items'), 'isKept');
        self::assertSame([true, true], $kept());
        $this->actingAs($this->manager);
        $this->terms([], ['packMonths' => 1]);
        app(RemoveOldPacks::class)();
        self::assertSame([true, false], $kept());
        $old = Pack::query()->with('seal')->orderBy('id')->firstOrFail();
        self::assertFalse(app(BlobStore::class)->has($old->digest));
        $said = $this->getJson("/api/v1/packs/{$old->id}/zip")->assertStatus(410);
        self::assertStringContainsString('no longer kept', $this->text($said, 'detail'));
        self::assertNotSame('', $old->seal->signature);
        self::assertTrue(TrailDetail::query()->where('about', "older than 1 months: packs {$old->id}")->exists());
        self::assertSame(0, Artisan::call('nine-tally:check'), Artisan::output());
    }

    public function test_content_is_due_when_the_rule_says_so(): void
    {
        $this->tallied();
        $this->actingAs($this->manager);
        $this->terms([], ['contentMonths' => 2]);
        $due = fn(): array => array_column(
            $this->objects($this->api('GET', "/migrations/{$this->migration->id}/content"), 'items'),
            'isDue',
        );
        self::assertSame([false, false], $due());
        $this->travel(63)->days();
        self::assertSame([true, true], $due());
        // What is not sent stays as it stands.
        $this->terms([], ['mayLink' => true]);
        self::assertSame([true, true], $due());
    }

    public function test_reports_and_packs_are_for_whom_the_migration_says(): void
    {
        $tally = $this->tallied();
        $viewer = $this->person('Vida Marsh');
        $this->migration->memberships()->create(['user_id' => $viewer->id, 'role' => Role::Viewer]);
        $seen = fn(): array => array_map(
            fn(string $path): int => $this->actingAs($viewer->refresh())->get("/api/v1{$path}")->getStatusCode(),
            ["/tallies/{$tally->id}/report", "/tallies/{$tally->id}/packs", "/migrations/{$this->migration->id}/report"],
        );
        self::assertSame([200, 200, 200], $seen());
        $this->actingAs($this->manager);
        $this->terms([], ['reportsFor' => ['auditor']]);
        self::assertSame([403, 403, 403], $seen());
        $this->actingAs($this->owner)->get("/api/v1/tallies/{$tally->id}/report")->assertOk();
    }

    public function test_words_of_old_entries_of_the_trail_are_purged_and_the_chain_holds(): void
    {
        $this->tallied();
        $entries = TrailEntry::query()->count();
        self::assertSame(1, Artisan::call('nine-tally:trail', ['--purge-words-before' => 'yesterday']));
        $this->travel(3)->days();
        self::assertSame(0, Artisan::call('nine-tally:trail', ['--purge-words-before' => now()->format('Y-m-d')]));
        self::assertSame([$entries + 1, 1], [TrailEntry::query()->count(), TrailDetail::query()->count()]);
        self::assertSame(
            ['purged' => $entries, 'broken' => null],
            array_intersect_key(app(TrailChain::class)->verify(), ['purged' => 0, 'broken' => 0]),
        );
    }
}
