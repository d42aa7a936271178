<?php

declare(strict_types=1);

namespace Tests\Feature\Retention;

use App\Actions\Access\TrailChain;
use App\Adapters\Database\DatabaseRow;
use App\Adapters\Storage\BlobStore;
use App\Jobs\RemovePurgedFiles;
use App\Models\Pack;
use App\Models\PlanVersion;
use App\Models\Purge;
use App\Models\SignedPage;
use App\Models\Tally;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;
use Illuminate\Testing\TestResponse;
use NineTally\Core\Repeats\ChosenRow;
use NineTally\Core\Row\Side;
use NineTally\Core\Seal\PackCheck;
use Symfony\Component\HttpFoundation\Response;
use Tests\Feature\Sign\Signs;
use Tests\TestCase;

/** What is purged is nowhere any more; that it was there, and who purged it, is. */
final class PurgeTest extends TestCase
{
    use Signs;

    /** In cells, keys, crosswalks, bridges, filters and comments; what people wrote as reasons stays. */
    private const SECRET = 'Vanterpool';

    public function test_nothing_of_a_purged_delivery_is_left_in_the_database_or_on_the_disk(): void
    {
        $tally = $this->planted();
        $path = "/tallies/{$tally->id}";
        $this->api('POST', "{$path}/report-orders")->assertAccepted();
        $pack = $this->packed($tally);
        self::assertSame([
            'answers', 'cell_findings_1', 'comments', 'correction_lines', 'delivery_profiles', 'kept_filters', 'patterns',
            'plan_drafts', 'plan_versions', 'refused_records', 'row_findings_1', 'rulings', 'tallies', 'total_groups',
        ], $this->tablesWithSecret());
        self::assertNotSame([], $this->filesWithSecret());
        $before = $this->api('GET', $path)->assertOk();
        $totals = $this->objects($this->api('GET', "{$path}/totals"), 'items');

        $this->actingAs($this->owner);
        $all = array_column($this->objects($this->api('GET', "/migrations/{$this->migration->id}/content")->assertOk(), 'items'), 'id');
        $preview = $this->api('POST', "/migrations/{$this->migration->id}/purge-previews", ['deliveries' => $all])->assertOk();
        $preview->assertJson(['removed' => ['files' => 2, 'refused' => 1, 'tallies' => 1, 'planValues' => 4]]);
        $this->purge($all)->assertCreated();

        self::assertSame([], $this->tablesWithSecret());
        self::assertSame([], $this->filesWithSecret());
        self::assertFalse(app(BlobStore::class)->has($pack->digest));
        // Hashes, counts, who and when stay.
        $after = $this->api('GET', $path)->assertOk();
        foreach (['rows', 'cells', 'values', 'rulings', 'classes', 'finishedAt'] as $figure) {
            self::assertSame($before->json($figure), $after->json($figure), $figure);
        }
        self::assertSame('Tove Lindqvist', $after->json('purge.by'));
        self::assertSame(
            array_column($totals, 'source'),
            array_column($this->objects($this->api('GET', "{$path}/totals"), 'items'), 'source'),
        );
        self::assertSame(0, Artisan::call('nine-tally:check'), Artisan::output());
        self::assertNull(app(TrailChain::class)->verify()['broken']);
        // Nobody takes nothing for none.
        foreach (["{$path}/findings", "{$path}/records/1", "{$path}/comments?kind=row&target=1", "{$path}/forgiven/1"] as $gone) {
            $said = $this->api('GET', $gone)->assertStatus(410);
            self::assertStringContainsString('purged by Tove Lindqvist', $this->text($said, 'detail'));
        }
        self::assertSame('purged', $this->api('GET', "{$path}/sign-off")->assertOk()->json('blocks.0.code'));
        $this->get("/api/v1{$path}/report")->assertOk()->assertSee('The content of this tally was purged by Tove Lindqvist');
        // A pack can still be made, and says what is not in it.
        $new = $this->packed($tally);
        $checked = PackCheck::of(app(BlobStore::class)->path($new->digest), $new->seal->key_fingerprint);
        self::assertTrue($checked->fits());
        self::assertStringContainsString('was purged by Tove Lindqvist', implode("\n", array_column($checked->lines, 'words')));
        $this->api('POST', "{$path}/clear-pack-orders")->assertStatus(410);
        // What was made since is kept when the files are looked for once more.
        RemovePurgedFiles::dispatchSync(Purge::query()->firstOrFail()->id);
        self::assertTrue(app(BlobStore::class)->has($new->digest));
    }

    public function test_one_side_takes_its_tallies_with_it_and_leaves_the_other_file(): void
    {
        $tally = $this->planted();
        $this->deliver('source', $this->source()."KB,99,x,1\n", 'later.csv');
        $this->actingAs($this->owner);
        $this->purge([$tally->target_delivery_id])->assertCreated();
        $blobs = app(BlobStore::class);
        self::assertFalse($blobs->has($tally->targetDelivery->digest));
        self::assertTrue($blobs->has($tally->sourceDelivery->digest));
        $this->actingAs($this->analyst);
        $said = $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertStatus(410);
        self::assertStringContainsString('target delivery 1 of Moorings', $this->text($said, 'detail'));
        // The same bytes, delivered anew, are another delivery, and stay.
        $this->deliver('target', $this->target(), 'again.csv');
        RemovePurgedFiles::dispatchSync(Purge::query()->firstOrFail()->id);
        self::assertTrue($blobs->has($tally->targetDelivery->digest));
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        self::assertSame(2, $this->dataset->latestTally()?->number);
    }

    public function test_what_was_accepted_stays_accepted_and_its_page_is_made_anew_without_the_content(): void
    {
        $tally = $this->tallied();
        $this->rule($tally, 'missing')->assertCreated();
        $this->rule($tally, 'changed')->assertCreated();
        foreach ([$this->analyst, $this->manager, $this->owner] as $person) {
            $this->sign($tally, $person)->assertCreated();
        }
        $page = SignedPage::query()->firstOrFail();
        $path = "/tallies/{$tally->id}";
        $state = $this->get("/api/v1{$path}/sign-off/taken?as=json")->getContent();
        self::assertTrue(app(BlobStore::class)->has($page->html_digest));
        $this->purge([$tally->source_delivery_id])->assertCreated();
        self::assertFalse(app(BlobStore::class)->has($page->html_digest));
        self::assertSame('accepted', $this->api('GET', "{$path}/sign-off")->json('state'));
        self::assertSame($state, $this->get("/api/v1{$path}/sign-off/taken?as=json")->getContent());
        $this->get("/api/v1{$path}/report")->assertOk()->assertSee('was purged by Tove Lindqvist')->assertSee('Moorings is accepted');
    }

    public function test_it_is_said_what_stays(): void
    {
        $tally = $this->planted();
        $other = $this->migration->datasets()->create(['name' => 'Moorings again']);
        $this->api('POST', "/datasets/{$other->id}/used-deliveries", ['delivery' => $tally->source_delivery_id, 'side' => 'source'])
            ->assertCreated();
        $this->deliver('source', $this->source().'KB,99,x,1'."\n", 'later.csv');
        $this->deliver('target', $this->target().'KB,99,x,1'."\n", 'later.csv');
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        self::assertSame(1, PlanVersion::query()->count());
        $this->actingAs($this->owner);
        $preview = $this->api('POST', "/migrations/{$this->migration->id}/purge-previews", ['deliveries' => [$tally->source_delivery_id]]);
        self::assertSame([
            'Moorings: version 1 of the plan keeps 4 lines of crosswalks, bridges and chosen rows, for a tally of other '.
                'deliveries stands on it.',
            'The same bytes as "old.csv" stand in source delivery 1 of Moorings again, and stay until that is purged too.',
        ], $preview->json('stays'));
        $this->purge([$tally->source_delivery_id])->assertCreated();
        self::assertTrue(app(BlobStore::class)->has($tally->sourceDelivery->digest));
        self::assertSame(6, substr_count(PlanVersion::query()->firstOrFail()->document, self::SECRET));
    }

    public function test_only_a_data_owner_purges_with_a_reason_and_a_password_and_only_once(): void
    {
        $tally = $this->tallied();
        $path = "/migrations/{$this->migration->id}/purges";
        $body = ['deliveries' => [$tally->source_delivery_id], 'reason' => 'asked for', 'password' => 'kept by the lock house'];
        $this->api('POST', $path, $body)->assertForbidden();
        $this->actingAs($this->owner);
        $this->api('POST', $path, [...$body, 'password' => 'guessed'])->assertUnprocessable();
        $this->api('POST', $path, [...$body, 'reason' => ''])->assertUnprocessable();
        self::assertSame(0, Purge::query()->count());
        $this->api('POST', $path, $body)->assertCreated();
        $this->api('POST', $path, $body)->assertConflict();
        self::assertSame(1, Purge::query()->count());
        // The serving role cannot purge what nobody entered, and cannot take an act back.
        foreach (['SELECT purge_delivery(99)', 'SELECT purge_plan(1, 1, \'{}\')', 'DELETE FROM purges'] as $statement) {
            try {
                DB::statement($statement);
                self::fail("{$statement} was done.");
            } catch (QueryException $refused) {
                self::assertMatchesRegularExpression('/permission denied|is not entered|does not reach/', $refused->getMessage());
            }
        }
    }

    /**
     * @param  list<mixed>  $deliveries
     * @return TestResponse<Response>
     */
    private function purge(array $deliveries): TestResponse
    {
        return $this->api('POST', "/migrations/{$this->migration->id}/purges", [
            'deliveries' => $deliveries, 'reason' => 'The harbour asked for it.', 'password' => 'kept by the lock house',
        ]);
    }

    private function source(): string
    {
        $rows = "basin,berth,holder,fee\n";
        foreach (range(1, 8) as $row) {
            $rows .= "KB,{$row},".self::SECRET." {$row},{$row}\n";
        }

        return $rows.'LM,'.self::SECRET.",lone,1\nLM,2,".self::SECRET.",1,too many\n";
    }

    private function target(): string
    {
        $rows = "basin,berth,holder,fee\n";
        foreach (range(1, 8) as $row) {
            $rows .= "KB,{$row},".self::SECRET." {$row} & Co,".($row * 2)."\n";
        }

        return $rows."OT,9,Wanda,1\n";
    }

    /** The secret wherever content can come to stand. */
    private function planted(): Tally
    {
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $this->actingAs($this->analyst);
        $this->deliver('source', $this->source(), 'old.csv');
        $this->deliver('target', $this->target(), 'new.csv');
        $secret = self::SECRET;
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [$same('basin'), $same('berth')],
            'columnPairs' => [
                ['crosswalk' => [['source' => "{$secret} 1", 'target' => "{$secret} 1 & Co"]], ...$same('holder')],
                [...$same('fee'), 'kind' => 'number', 'tolerance' => ['by' => 'absolute', 'most' => '1']],
            ],
            'leftOut' => ['source' => [], 'target' => []],
            'bridges' => [['source' => ['LM', $secret], 'target' => ['OT', '9']]],
            'refusedBridges' => [['source' => ['LM', $secret], 'target' => ['OT', '8']]],
            'keptRows' => [(new ChosenRow(Side::Target, ['LM', $secret], $digest = str_repeat('0', 64), $digest, $secret))->toArray()],
            'totals' => [['measure' => 'sum', ...$same('fee'), 'by' => [$same('holder')]]],
            'sides' => [
                'source' => [
                    'preparation' => [['id' => 'a1', 'kind' => 'tidy-text', 'columns' => ['holder'], 'actions' => [['action' => 'trim']]]],
                ],
            ],
        ])->assertOk()->assertJson(['problems' => []]);
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $tally = $this->newest();
        $path = "/tallies/{$tally->id}";
        $this->api('POST', "{$path}/rulings", [
            'scope' => 'filter', 'filter' => ['of' => 'cells', 'text' => $secret], 'decision' => 'defect', 'reason' => 'as agreed',
            'ticket' => 'T-1', 'seenAct' => 99,
        ])->assertCreated();
        $this->api('POST', "{$path}/comments", [
            'kind' => 'row', 'target' => '1', 'text' => "{$secret} again", 'mentions' => [$this->owner->id],
        ])->assertCreated();
        $this->api(
            'POST',
            "/datasets/{$this->dataset->id}/kept-filters",
            ['name' => 'his', 'filter' => ['of' => 'cells', 'text' => $secret]],
        )
            ->assertCreated();
        $acts = array_column($this->objects($this->api('GET', "{$path}/rulings"), 'items'), 'id');
        $this->api('POST', "/datasets/{$this->dataset->id}/corrections", ['acts' => $acts])->assertCreated();
        foreach (['forgiven/1', 'findings?of=cells', 'required-records', 'patterns/1/value-pairs'] as $asked) {
            $this->api('GET', "{$path}/{$asked}");
        }
        foreach (['trial', 'advice', 'profile', 'misfits'] as $asked) {
            $this->api('GET', "/datasets/{$this->dataset->id}/{$asked}");
        }
        $this->api('POST', "{$path}/findings/workbook?of=cells")->assertAccepted();

        return $tally;
    }

    private function packed(Tally $tally): Pack
    {
        $this->api('POST', "/tallies/{$tally->id}/pack-orders")->assertAccepted();

        return Pack::query()->with('seal')->latest('id')->firstOrFail();
    }

    /** @return list<string> */
    private function tablesWithSecret(): array
    {
        $found = [];
        $owner = DB::connection('owner');
        $tables = DatabaseRow::all(
            $owner,
            "SELECT relname FROM pg_class JOIN pg_namespace n ON n.oid = relnamespace WHERE nspname = 'public' AND relkind = 'r'",
        );
        foreach ($tables as $table) {
            $name = $table->text('relname');
            if ($owner->scalar("SELECT count(*) FROM \"{$name}\" t WHERE t::text ~* ?", [self::SECRET]) > 0) {
                $found[] = $name;
            }
        }

        sort($found);

        return $found;
    }

    /** @return list<string> */
    private function filesWithSecret(): array
    {
        $found = [];
        foreach (File::allFiles(storage_path()) as $file) {
            if (! str_contains($file->getPathname(), '/logs/') && stripos($file->getContents(), self::SECRET) !== false) {
                $found[] = $file->getRelativePathname();
            }
        }

        return $found;
    }
}
