<?php

declare(strict_types=1);

namespace Tests\Feature\Access;

use App\Actions\Access\Trail;
use App\Actions\Access\TrailChain;
use App\Models\Role;
use App\Models\Ruling;
use App\Models\TrailAct;
use App\Models\TrailDetail;
use App\Models\TrailEntry;
use App\Models\TrailLink;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/** Every act in a chain that cannot be changed without being seen. */
final class TrailTest extends TestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        // That a migration and a dataset were added is told of too.
        DB::connection('owner')->statement('TRUNCATE trail_links, trail_details, trail_entries RESTART IDENTITY');
    }

    public function test_acts_are_entered_with_what_they_tell_of_and_linked_in_order(): void
    {
        $tally = $this->tallied();
        $this->api('POST', "/tallies/{$tally->id}/rulings", [
            'scope' => 'class', 'target' => 'missing', 'decision' => 'expected', 'reason' => 'as agreed', 'seenAct' => 0,
        ])->assertCreated();

        self::assertSame(
            ['delivered', 'delivered', 'made-plan', 'began-tally', 'ruled'],
            TrailEntry::query()->orderBy('id')->pluck('act')->map->value->all(),
        );
        self::assertSame(['linked' => 5, 'waiting' => 0, 'purged' => 0, 'broken' => null], $this->verified());
        self::assertSame(0, Artisan::call('nine-tally:trail', ['--verify' => true]));
    }

    public function test_every_act_is_told_of_with_what_was_before_and_after_and_without_a_value(): void
    {
        $tally = $this->tallied();
        $path = "/tallies/{$tally->id}";
        $this->api('PUT', "{$path}/name", ['name' => 'Rehearsal 1', 'remark' => ''])->assertNoContent();
        $this->api('PUT', "{$path}/name", ['name' => 'Rehearsal 2', 'remark' => ''])->assertNoContent();
        $this->api('POST', "{$path}/comments", ['kind' => 'row', 'target' => '1', 'text' => 'Ezekiel Thornøy', 'mentions' => []])
            ->assertCreated();
        $this->api('PUT', "{$path}/report-texts", ['place' => 'opening', 'text' => 'Ezekiel'])->assertOk();
        $this->api('PUT', "/datasets/{$this->dataset->id}/parameters", ['parameters' => ['season' => '2026']])->assertOk();
        $this->api('POST', "{$path}/rulings", [
            'scope' => 'class', 'target' => 'missing', 'decision' => 'defect', 'reason' => 'as agreed', 'ticket' => 'T-1', 'seenAct' => 0,
        ])->assertCreated();
        $act = Ruling::query()->firstOrFail()->id;
        $this->api('PUT', "/rulings/{$act}/defect", ['mends' => 'the vendor', 'due' => null])->assertNoContent();
        $this->api('PUT', "/rulings/{$act}/defect", ['mends' => 'Tove', 'due' => '2026-12-24'])->assertNoContent();
        $this->api('POST', "/datasets/{$this->dataset->id}/corrections", ['acts' => [$act]])->assertCreated();
        $manager = $this->person('Ines Varga');
        $this->migration->memberships()->create(['user_id' => $manager->id, 'role' => Role::TestManager]);
        $this->actingAs($manager);
        $terms = ['needsCheck' => true, 'maySignTwice' => false, 'mayAcceptOwn' => false];
        $limits = "/migrations/{$this->migration->id}/signing-terms";
        $this->api('PUT', $limits, [...$terms, 'limits' => [['figure' => 'rows-missing', 'worst' => '0']]])->assertOk();
        $this->api('PUT', $limits, [...$terms, 'maySignTwice' => true, 'limits' => [['figure' => 'rows-missing', 'worst' => '2']]])
            ->assertOk();

        $told = TrailDetail::query()->orderBy('entry_id')->pluck('about')->all();
        foreach (
            [
                'Moorings, tally 1: "Rehearsal 1" → "Rehearsal 2"',
                'Moorings, tally 1: on a row', 'Moorings, tally 1: opening, 7 characters',
                'Moorings: values of parameters: season', "Moorings: ruling {$act} is mended by: the vendor → Tove until 2026-12-24",
                'Moorings, tally 1: set 1, 1 line', 'rows missing: none → at most 0',
                'rows missing: at most 0 → at most 2; one person may sign twice: no → yes',
            ] as $words
        ) {
            self::assertContains($words, $told);
        }
        self::assertStringNotContainsString('Ezekiel', implode("\n", array_filter($told, is_string(...))));

        // Filtered, and taken away with the digests of the chain.
        $auditor = $this->person('Imre Halloway');
        $this->migration->memberships()->create(['user_id' => $auditor->id, 'role' => Role::Auditor]);
        $this->actingAs($auditor);
        $trail = "/migrations/{$this->migration->id}/trail";
        $acts = fn(string $query): array => array_column(
            $this->objects($this->api('GET', "{$trail}?{$query}")->assertOk(), 'items'),
            'act',
        );
        self::assertSame(['changed-terms', 'changed-terms'], $acts("person={$manager->id}"));
        self::assertSame(
            ['named-tally', 'named-tally'],
            $acts('act=named-tally&from='.now()->format('Y-m-d').'&until='.now()->format('Y-m-d')),
        );
        self::assertSame([], $acts('until=2020-01-01'));
        $taken = $this->get("/api/v1{$trail}/taken?act=commented")->assertOk()->streamedContent();
        $link = TrailLink::query()->whereRelation('entry', 'act', 'commented')->firstOrFail();
        self::assertStringContainsString("{$link->place},{$link->digest}\n", $taken);
        self::assertSame(2, substr_count($taken, "\n"));
    }

    public function test_what_is_taken_back_leaves_no_entry_and_what_commits_later_is_linked_later(): void
    {
        $other = DB::connection('owner');
        // Past the framework, which would wait with whatever follows a commit until the other connection commits too.
        $other->select('SELECT 1');
        $other->getPdo()->beginTransaction();
        $late = $other->table('trail_entries')->insertGetId([
            'act' => 'signed-in', 'detail_digest' => str_repeat('0', 64), 'created_at' => now(),
        ]);
        $this->note('first');
        try {
            DB::transaction(function (): void {
                $this->note('never');
                throw new \RuntimeException('The act was taken back.');
            });
        } catch (\RuntimeException) {
        }
        $this->note('second');
        $other->getPdo()->commit();
        $this->note('third');

        // An entry with a lower number that was committed later stands later in the chain.
        self::assertSame([2, 4, 1, 5], TrailLink::query()->orderBy('place')->pluck('entry_id')->all());
        self::assertSame(1, $late);
        self::assertNull($this->verified()['broken']);
        $other->disconnect();
    }

    public function test_the_serving_role_cannot_change_it_and_what_its_owner_changes_is_found(): void
    {
        $this->note('one');
        $this->note('two');
        $this->note('three');
        foreach (
            [
                'UPDATE trail_entries SET act = act',
                'DELETE FROM trail_entries',
                'UPDATE trail_details SET about = about',
                'DELETE FROM trail_links',
            ]
            as $statement
        ) {
            try {
                DB::transaction(static fn() => DB::statement($statement));
                self::fail("{$statement} was let pass.");
            } catch (QueryException $refused) {
                self::assertStringContainsString('permission denied', $refused->getMessage());
            }
        }
        $owner = DB::connection('owner');
        $owner->statement("UPDATE trail_details SET about = 'another' WHERE entry_id = 2");
        self::assertStringContainsString('What entry 2 says', (string) $this->verified()['broken']);
        // What was purged is gone, and the chain still holds.
        $owner->statement('DELETE FROM trail_details WHERE entry_id = 2');
        self::assertSame(['linked' => 3, 'waiting' => 0, 'purged' => 1, 'broken' => null], $this->verified());
        $owner->statement('UPDATE trail_entries SET user_id = NULL WHERE id = 3');
        self::assertStringContainsString('Entry 3, at place 3', (string) $this->verified()['broken']);
        $owner->statement('DELETE FROM trail_links WHERE place = 1');
        self::assertSame('Place 1 is missing: an entry was taken out.', $this->verified()['broken']);
        self::assertSame(1, Artisan::call('nine-tally:trail', ['--verify' => true]));
        $owner->disconnect();
    }

    public function test_many_who_write_at_once_make_one_chain(): void
    {
        $script =
            'require "vendor/autoload.php"; $app = require "bootstrap/app.php"; '.
            '$app->make(Illuminate\Contracts\Console\Kernel::class)->bootstrap(); '.
            'for ($i = 0; $i < 25; $i++) app(App\Actions\Access\Trail::class)->note(App\Models\TrailAct::SignedOut, null, "one of many");';
        $processes = [];
        for ($writer = 0; $writer < 3; $writer++) {
            $processes[] = proc_open(
                [PHP_BINARY, '-r', $script],
                [1 => ['file', '/dev/null', 'w'], 2 => ['file', '/dev/null', 'w']],
                $pipes,
                base_path(),
            );
        }
        foreach ($processes as $process) {
            self::assertIsResource($process);
            self::assertSame(0, proc_close($process));
        }

        self::assertSame(['linked' => 75, 'waiting' => 0, 'purged' => 0, 'broken' => null], $this->verified());
    }

    private function note(string $about): void
    {
        app(Trail::class)->note(TrailAct::SignedOut, $this->analyst, $about, $this->migration);
    }

    /** @return array{linked: int, waiting: int, purged: int, broken: string|null} */
    private function verified(): array
    {
        return app(TrailChain::class)->verify();
    }
}
