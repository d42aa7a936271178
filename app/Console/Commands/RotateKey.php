<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Models\SecondFactor;
use App\Models\SourceConnection;
use App\Models\Webhook;
use Illuminate\Console\Command;
use Illuminate\Contracts\Encryption\StringEncrypter;
use Illuminate\Database\Connection;
use Illuminate\Encryption\Encrypter;

/**
 * Gives the installation another key and writes everything anew that is kept encrypted under the old one: passwords of connections,
 * secrets of second factors and of programs that are told. The old key goes on reading what browsers hold until --forget.
 */
final class RotateKey extends Command
{
    protected $signature = 'nine-tally:rotate-key {--forget : forget the keys before the newest, instead of making another}';

    protected $description = 'Changes the key under which passwords of connections and second factors are kept';

    public function handle(Connection $database): int
    {
        $path = app()->environmentFilePath();
        $settings = @file_get_contents($path);
        $old = config()->string('app.key');
        if ($settings === false || ! is_writable($path) || preg_match('/^APP_KEY=.+$/m', $settings) !== 1) {
            $this->error("The settings in {$path} cannot be changed by this account. Run this as the account that serves.");

            return self::FAILURE;
        }
        $settings = preg_replace('/^APP_PREVIOUS_KEYS=.*\n?/m', '', $settings) ?? $settings;
        if ($this->option('forget') === true) {
            $this->write($path, $settings);
            $this->info('Keys before the newest are forgotten. Start Nine Tally again.');

            return self::SUCCESS;
        }
        $cipher = config()->string('app.cipher');
        $new = Encrypter::generateKey($cipher);
        $next = new Encrypter($new, $cipher);
        $next->previousKeys([base64_decode(substr($old, 7), true) ?: '']);
        $text = 'base64:'.base64_encode($new);
        // First both are known: whatever is killed from here on, everything can be read by one of them.
        $this->write($path, (preg_replace('/^APP_KEY=.+$/m', "APP_KEY={$text}", $settings) ?? $settings)."APP_PREVIOUS_KEYS={$old}\n");
        $count = $database->transaction(fn(): int => $this->encryptAnew($next));
        $this->info(
            "{$count} secrets are kept under a new key. Start Nine Tally again (bin/stop, bin/start), then run this with --forget.",
        );

        return self::SUCCESS;
    }

    private function encryptAnew(StringEncrypter $next): int
    {
        $count = 0;
        foreach ([SourceConnection::query(), SecondFactor::query(), Webhook::query()] as $query) {
            foreach ($query->lockForUpdate()->get() as $kept) {
                $secret = $kept->secret;
                if ($secret !== null) {
                    $kept
                        ->newQuery()
                        ->toBase()
                        ->where($kept->getKeyName(), $kept->getKey())
                        ->update(['secret' => $next->encryptString($secret)]);
                    $count++;
                }
            }
        }

        return $count;
    }

    private function write(string $path, string $settings): void
    {
        $new = "{$path}.new";
        if (@file_put_contents($new, $settings) !== strlen($settings) || ! chmod($new, 0600) || ! rename($new, $path)) {
            throw new \RuntimeException("The settings in {$path} could not be written; the disk may be full. The key is as it was.");
        }
    }
}
