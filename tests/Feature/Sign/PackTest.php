<?php

declare(strict_types=1);

namespace Tests\Feature\Sign;

use App\Adapters\Report\Printer;
use App\Adapters\Seal\SealKeys;
use App\Adapters\Storage\BlobStore;
use App\Models\Pack;
use App\Models\SealEntry;
use App\Models\Tally;
use App\Models\TrailDetail;
use NineTally\Core\Seal\PackCheck;
use Tests\TestCase;

/** Evidence that anybody can check, with nothing of ours. */
final class PackTest extends TestCase
{
    public function test_a_pack_holds_what_was_found_ruled_and_signed_and_its_seals_are_chained(): void
    {
        $tally = $this->signed();
        $first = $this->pack($tally);
        $second = $this->pack($tally);
        self::assertSame([1, 2], [$first->number, $second->number]);
        $statement = $second->seal->statement;
        self::assertStringContainsString('"previousSeal":"'.$first->seal->digest.'"', $statement);

        $checked = PackCheck::of(app(BlobStore::class)->path($second->digest), app(SealKeys::class)->key()->fingerprint());
        self::assertTrue($checked->fits(), implode("\n", array_column($checked->lines, 'words')));
        $files = $this->files($second);
        self::assertStringContainsString('missing', $files['data/findings-rows.csv']);
        self::assertStringContainsString('as agreed', $files['data/rulings.csv']);
        self::assertStringContainsString(hash('sha256', self::OLD), $files['data/deliveries.csv']);
        /** @var list<array{digest: string, act: string}> $signatures */
        $signatures = json_decode($files['data/signatures.json'], true);
        self::assertSame(['prepared'], array_column($signatures, 'act'));
        self::assertSame($signatures[0]['digest'], hash('sha256', $files["data/signed/{$signatures[0]['digest']}.json"]));
        self::assertStringNotContainsString(self::OLD, implode($files));
    }

    public function test_the_tables_are_a_data_package_that_others_read(): void
    {
        $folder = $this->unpacked($this->pack($this->signed()));
        $script = 'const {Package} = require("datapackage"); (async () => { const p = await Package.load(process.argv[1]); '.
            'if (!p.valid) throw new Error(p.errors.map(String).join("; ")); let rows = 0; '.
            'for (const r of p.resources) rows += (await r.read()).length; console.log(p.resources.length, rows) })()'.
            '.catch((e) => { console.error(String(e), e.multiple ? e.errors.map(String) : ""); process.exit(1) })';
        exec(
            'cd '.
                escapeshellarg(base_path()).
                ' && node -e '.
                escapeshellarg($script).
                ' '.
                escapeshellarg("{$folder}/data/datapackage.json").
                ' 2>&1',
            $said,
            $status,
        );

        self::assertSame(0, $status, implode("\n", $said));
        self::assertSame('10', explode(' ', $said[0])[0]);
    }

    public function test_the_command_line_checks_it_and_names_the_file_that_was_changed(): void
    {
        $pack = $this->pack($this->signed());
        $path = storage_path('work/changed.zip');
        copy(app(BlobStore::class)->path($pack->digest), $path);
        chmod($path, 0600);
        self::assertSame([0, 'The pack fits.'], $this->check($path, $pack));
        $zip = new \ZipArchive;
        $zip->open($path);
        $zip->addFromString('moorings-tally-1/data/waivers.csv', "waiver\n1\n");
        $zip->close();
        exec($this->command($path, $pack), $said, $status);
        self::assertSame([1, 'The pack does not fit.'], $this->check($path, $pack));
        self::assertStringContainsString('data/waivers.csv: This file was changed', implode("\n", $said));
    }

    public function test_clear_values_are_packed_for_a_data_owner_alone_and_on_record(): void
    {
        $tally = $this->signed();
        $this->api('POST', "/tallies/{$tally->id}/clear-pack-orders")->assertForbidden();
        $this->actingAs($this->owner);
        $this->api('POST', "/tallies/{$tally->id}/clear-pack-orders")->assertAccepted();
        $pack = Pack::query()->latest('id')->firstOrFail();
        self::assertTrue($pack->has_clear_values);
        self::assertContains(self::OLD, $this->files($pack));
        self::assertTrue(TrailDetail::query()->where('about', 'like', 'evidence with clear values%')->exists());
        $path = app(BlobStore::class)->path($pack->digest);
        exec($this->command($path, $pack, '--again'), $said, $status);
        self::assertSame(0, $status, implode("\n", $said));
        self::assertStringContainsString('the same engine gives the same bytes', implode("\n", $said));
        // A masked one says that it cannot.
        exec($this->command(app(BlobStore::class)->path($this->pack($tally)->digest), $pack, '--again'), $masked);
        self::assertStringContainsString('it is a masked one', implode("\n", $masked));
        $this->get("/api/v1/packs/{$pack->id}/zip")->assertOk();
        $this->actingAs($this->analyst);
        $this->get("/api/v1/packs/{$pack->id}/zip")->assertForbidden();
    }

    public function test_a_pack_is_sent_in_ranges_and_what_could_not_be_made_leaves_nothing(): void
    {
        $tally = $this->signed();
        $pack = $this->pack($tally);
        $part = $this->get("/api/v1/packs/{$pack->id}/zip", ['Range' => 'bytes=0-1'])->assertStatus(206);
        self::assertSame('PK', $part->streamedContent());
        $this->app->when(Printer::class)->needs('$chromium')->give('/bin/false');
        try {
            $this->api('POST', "/tallies/{$tally->id}/pack-orders");
        } catch (\RuntimeException) {
        }
        self::assertSame([1, 1], [Pack::query()->count(), SealEntry::query()->count()]);
    }

    /** @return array{int, string} how it ended, and the last line */
    private function check(string $path, Pack $pack): array
    {
        exec($this->command($path, $pack), $said, $status);

        return [$status, $said[count($said) - 1] ?? ''];
    }

    private function command(string $path, Pack $pack, string ...$options): string
    {
        return implode(' ', [
            'php', escapeshellarg(base_path('core/bin/nine-tally')), 'check', escapeshellarg($path), "--key={$pack->seal->key_fingerprint}",
            ...$options, '2>&1',
        ]);
    }

    private function signed(): Tally
    {
        $tally = $this->tallied();
        foreach (['missing', 'refused'] as $class) {
            $this->api('POST', "/tallies/{$tally->id}/rulings", [
                'scope' => 'class', 'target' => $class, 'decision' => 'expected', 'reason' => 'as agreed', 'seenAct' => 99,
            ])->assertCreated();
        }
        $digest = $this->api('GET', "/tallies/{$tally->id}/sign-off")->json('mine.digest');
        self::assertIsString($digest);
        $this->api('POST', "/migrations/{$this->migration->id}/signatures", [
            'items' => [['tally' => $tally->id, 'digest' => $digest]], 'password' => 'kept by the lock house',
        ])->assertCreated();

        return $tally;
    }

    private function pack(Tally $tally): Pack
    {
        $this->api('POST', "/tallies/{$tally->id}/pack-orders")->assertAccepted();
        $packs = $this->api('GET', "/tallies/{$tally->id}/packs")->assertOk();

        return Pack::query()->with('seal')->findOrFail($this->number($packs, 'items.0.id'));
    }

    private function unpacked(Pack $pack): string
    {
        $folder = storage_path('work/unpacked-'.bin2hex(random_bytes(4)));
        $zip = new \ZipArchive;
        $zip->open(app(BlobStore::class)->path($pack->digest));
        $zip->extractTo($folder);

        return "{$folder}/moorings-tally-1";
    }

    /** @return array<string, string> content by the path below the folder */
    private function files(Pack $pack): array
    {
        $zip = new \ZipArchive;
        $zip->open(app(BlobStore::class)->path($pack->digest));
        $files = [];
        for ($index = 0; $index < $zip->numFiles; $index++) {
            $files[substr((string) $zip->getNameIndex($index), strlen('moorings-tally-1/'))] = (string) $zip->getFromIndex($index);
        }

        return $files;
    }
}
