<?php

declare(strict_types=1);

use App\Actions\Retention\RemoveOldPacks;
use App\Actions\Sources\AdvanceDraws;
use App\Actions\Work\KeepGoing;
use Illuminate\Support\Facades\Schedule;

Schedule::call(static fn() => app(KeepGoing::class)())->name('keep-going')->everyTenSeconds()->withoutOverlapping(1)->onOneServer();
Schedule::call(static fn() => app(AdvanceDraws::class)())->name('advance-draws')->everyFiveSeconds()->withoutOverlapping(5)->onOneServer();
Schedule::call(static fn() => app(RemoveOldPacks::class)())->name('remove-old-packs')->hourly()->withoutOverlapping(60)->onOneServer();
