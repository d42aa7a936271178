<?php

declare(strict_types=1);

namespace Tests\Feature\Sources;

use App\Models\SourceConnection;
use Illuminate\Encryption\Encrypter;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\File;
use Tests\TestCase;

/** The key under which secrets are kept is changed by a command. */
final class RotateKeyTest extends TestCase
{
    public function test_secrets_are_kept_under_a_new_key_and_the_old_one_is_forgotten_when_asked(): void
    {
        SourceConnection::query()->create([
            'migration_id' => $this->migration->id, 'label' => 'Old', 'kind' => 'postgresql', 'settings' => [], 'secret' => 'let me in ',
            'user_id' => $this->analyst->id,
        ]);
        $folder = storage_path('work/settings');
        File::ensureDirectoryExists($folder);
        $old = config()->string('app.key');
        file_put_contents("{$folder}/.env", "APP_KEY={$old}\nDB_PORT=1\n");
        $this->app->useEnvironmentPath($folder);

        self::assertSame(0, Artisan::call('nine-tally:rotate-key'));
        self::assertStringContainsString('1 secrets are kept under a new key', Artisan::output());
        $settings = (string) file_get_contents("{$folder}/.env");
        self::assertMatchesRegularExpression(
            '/^APP_KEY=base64:(.+)\nDB_PORT=1\nAPP_PREVIOUS_KEYS='.preg_quote($old, '/').'\n$/D',
            $settings,
        );
        self::assertStringNotContainsString("APP_KEY={$old}", $settings);
        self::assertSame(0600, fileperms("{$folder}/.env") & 0777);
        preg_match('/^APP_KEY=base64:(.+)$/m', $settings, $key);
        $kept = DB::table('connections')->value('secret');
        self::assertIsString($kept);
        self::assertSame('let me in ', (new Encrypter((string) base64_decode($key[1] ?? '', true), 'AES-256-CBC'))->decryptString($kept));

        self::assertSame(0, Artisan::call('nine-tally:rotate-key', ['--forget' => true]));
        self::assertStringNotContainsString('APP_PREVIOUS_KEYS', (string) file_get_contents("{$folder}/.env"));
        File::deleteDirectory($folder);
    }
}
