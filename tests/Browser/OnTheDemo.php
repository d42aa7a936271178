<?php

declare(strict_types=1);

namespace Tests\Browser;

use App\Models\User;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;

/** A story on the demo. To load it takes longer than most stories, so one goes on with what the story before it left, as people do. */
trait OnTheDemo
{
    protected function goesOn(): bool
    {
        return self::$isOnDemo;
    }

    private function loadDemo(): void
    {
        if (! self::$isOnDemo) {
            DB::connection('owner')->statement('TRUNCATE users, migrations, standings RESTART IDENTITY CASCADE');
            @unlink(storage_path('work/demo-sign-ins'));
            Artisan::call('nine-tally:demo');
            User::query()->where('email', 'analyst@wherrymoor.example')->firstOrFail()->update(['password' => 'kept by the lock house']);
            self::$isOnDemo = true;
        }
    }
}
