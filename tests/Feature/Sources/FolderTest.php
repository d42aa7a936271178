<?php

declare(strict_types=1);

namespace Tests\Feature\Sources;

use App\Models\Receipt;
use App\Models\ReceiptState;
use App\Models\SourceConnection;
use Illuminate\Support\Facades\File;
use Tests\TestCase;

/** Files that others put into a folder: taken when they are whole, the newest or all that fit. */
final class FolderTest extends TestCase
{
    private string $folder;

    protected function setUp(): void
    {
        parent::setUp();
        $this->folder = storage_path('sources/drop');
        File::deleteDirectory($this->folder);
        File::ensureDirectoryExists($this->folder);
        $this->lay('old_1.csv', "berth,fee\n1,2\n", 300);
        $this->lay('old_2.csv', "berth,fee\n2,3\n", 200);
        $this->lay('notes.txt', 'x', 100);
        $this->actingAs($this->analyst);
    }

    public function test_the_newest_that_fits_is_taken_or_all_as_parts_and_they_stay_where_they_are(): void
    {
        $this->connect([]);
        $newest = $this->drawn('old_*.csv');
        self::assertSame([ReceiptState::Received, 'old_2.csv'], [$newest->state, $newest->file_name], (string) $newest->problem);
        self::assertSame("berth,fee\n2,3\n", file_get_contents(storage_path("chunks/{$newest->id}")));

        $all = $this->drawn('all old_*.csv');
        self::assertSame(ReceiptState::Unpacked, $all->state, (string) $all->problem);
        $parts = $all->unpacked_into ?? [];
        $names = Receipt::query()->whereKey($parts)->orderBy('file_name')->pluck('file_name')->all();
        self::assertSame(['old_1.csv', 'old_2.csv'], $names);
        $this->takeParts('source', ...$parts)->assertAccepted();
        $this->api('GET', "/datasets/{$this->dataset->id}")->assertJson(['folders' => ['Drop'], 'source' => ['delivered' => 2]]);
        self::assertFileExists("{$this->folder}/old_1.csv");
    }

    public function test_what_has_come_since_is_taken_once(): void
    {
        $this->connect([]);
        $this->travel(-1)->hours();
        $first = $this->drawn('since old_*.csv');
        $this->takeParts('source', ...$first->unpacked_into ?? [])->assertAccepted();
        $this->travelBack();
        // Both were written within that hour, so they are as new as what was written again.
        foreach (['old_1.csv', 'old_2.csv'] as $name) {
            touch("{$this->folder}/{$name}", time() - 5_000);
        }
        self::assertStringContainsString('has come since the last delivery', (string) $this->drawn('since old_*.csv')->problem);
        $this->lay('old_3.csv', "berth,fee\n3,4\n", 6_000);
        $this->lay('old_1.csv', "berth,fee\n1,9\n", 300);
        $again = $this->drawn('since old_*.csv');
        $names = Receipt::query()->whereKey($again->unpacked_into ?? [])->orderBy('file_name')->pluck('file_name')->all();
        self::assertSame(['old_1.csv', 'old_3.csv'], $names, (string) $again->problem);
    }

    public function test_what_may_still_grow_waits_for_its_rest_or_its_marker(): void
    {
        $this->connect([]);
        $this->lay('old_3.csv', "berth,fee\n3,", 2);
        self::assertStringContainsString('old_3.csv may still grow', (string) $this->drawn('old_*.csv')->problem);
        $this->connect(['marker' => '.done']);
        self::assertStringContainsString('its marker old_3.csv.done is not there', (string) $this->drawn('old_*.csv')->problem);
        $this->lay('old_3.csv.done', '', 1);
        self::assertSame(ReceiptState::Received, $this->drawn('old_*.csv')->state);
    }

    public function test_no_other_folder_is_read(): void
    {
        $this->connect([]);
        symlink('/etc/passwd', "{$this->folder}/old_9.csv");
        $refused = ['../../.env' => 'no / in it', '/etc/passwd' => 'no / in it', 'none*.csv' => 'no file called none*.csv'];
        foreach ($refused as $name => $why) {
            self::assertStringContainsString($why, (string) $this->drawn($name)->problem);
        }
        self::assertSame(ReceiptState::Received, $this->drawn('old_*.csv')->state, 'A way elsewhere is no file of it.');
        $this->connect(['folder' => '../chunks']);
        self::assertStringContainsString('there is no folder ../chunks', (string) $this->drawn('*')->problem);
    }

    /** @param array<string, string> $settings */
    private function connect(array $settings): void
    {
        SourceConnection::query()->delete();
        SourceConnection::query()->create([
            'migration_id' => $this->migration->id, 'label' => 'Drop', 'kind' => 'folder', 'settings' => $settings + ['folder' => 'drop'],
            'user_id' => $this->analyst->id,
        ]);
    }

    private function lay(string $name, string $content, int $secondsAgo): void
    {
        file_put_contents("{$this->folder}/{$name}", $content);
        touch("{$this->folder}/{$name}", time() - $secondsAgo);
    }

    private function drawn(string $what): Receipt
    {
        $asked = ['side' => 'source', 'source' => 'Drop', 'sql' => $what];
        $id = $this->api('POST', "/datasets/{$this->dataset->id}/snapshots", $asked)->assertAccepted()->json('id');
        self::assertIsString($id);

        return Receipt::query()->findOrFail($id);
    }
}
