<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Models\User;
use Illuminate\Console\Command;
use Illuminate\Database\Connection;

/** Prints how to sign in: the demo people, or the one-time code for the first administrator. */
final class SignIns extends Command
{
    protected $signature = 'nine-tally:sign-ins';

    protected $description = 'Prints the demo sign-ins, or a one-time code for the first administrator';

    public function handle(Connection $database): int
    {
        $signIns = storage_path('work/demo-sign-ins');
        if (is_file($signIns)) {
            foreach (file($signIns, FILE_IGNORE_NEW_LINES) ?: [] as $line) {
                [$email, $password, $name] = explode("\t", $line);
                $this->line(sprintf('  %-32s %s   (%s)', $email, $password, $name));
            }
        }
        if (! User::query()->exists()) {
            $code = bin2hex(random_bytes(16));
            $database->table('first_person_codes')->delete();
            $database
                ->table('first_person_codes')
                ->insert(['code_hash' => hash('sha256', $code), 'tries' => 0, 'expires_at' => now()->addHour()]);
            $this->line('  Open it and make the first administrator with this code, which lasts one hour and five tries:');
            $this->line("  {$code}");
        }

        return self::SUCCESS;
    }
}
