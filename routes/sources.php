<?php

declare(strict_types=1);

// Where deliveries are drawn from by themselves: connections, and when; and what people are told of.

use App\Http\Controllers\Notices\NoticeController;
use App\Http\Controllers\Notices\WebhookController;
use App\Http\Controllers\Sources\ConnectionController;
use App\Http\Controllers\Sources\ScheduleController;
use App\Http\Controllers\Sources\WantedSourcesController;
use App\Http\Middleware\May;
use App\Policies\Act;
use Illuminate\Support\Facades\Route;

Route::get('connections', [ConnectionController::class, 'index'])->defaults(May::ACT, Act::Administer);
Route::post('migrations/{migration}/connection-trials', [ConnectionController::class, 'try'])->defaults(May::ACT, Act::Administer);
Route::post('migrations/{migration}/connections', [ConnectionController::class, 'store'])->defaults(May::ACT, Act::Administer);
Route::put('migrations/{migration}/connections/{connection}', [ConnectionController::class, 'update'])
    ->defaults(May::ACT, Act::Administer)
    ->scopeBindings();
Route::delete('migrations/{migration}/connections/{connection}', [ConnectionController::class, 'destroy'])
    ->defaults(May::ACT, Act::Administer)
    ->scopeBindings();
Route::get('datasets/{dataset}/source-tables', [ConnectionController::class, 'tables'])->defaults(May::ACT, Act::Work);
Route::get('datasets/{dataset}/source-columns', [ConnectionController::class, 'columns'])->defaults(May::ACT, Act::Work);
Route::get('webhooks', [WebhookController::class, 'index'])->defaults(May::ACT, Act::Administer);
Route::post('migrations/{migration}/webhooks', [WebhookController::class, 'store'])->defaults(May::ACT, Act::Administer);
Route::delete('migrations/{migration}/webhooks/{webhook}', [WebhookController::class, 'destroy'])
    ->defaults(May::ACT, Act::Administer)
    ->scopeBindings();
Route::get('notices', [NoticeController::class, 'index']);
Route::get('me/notice-choices', [NoticeController::class, 'choices'])->defaults(May::ACT, Act::KeepAccount);
Route::put('me/notice-choices', [NoticeController::class, 'choose'])->defaults(May::ACT, Act::KeepAccount);
Route::get('datasets/{dataset}/schedule', [ScheduleController::class, 'show']);
Route::put('datasets/{dataset}/schedule', [ScheduleController::class, 'keep'])->defaults(May::ACT, Act::Work);
Route::post('datasets/{dataset}/draws', [ScheduleController::class, 'draw'])->defaults(May::ACT, Act::Work);
Route::get('migrations/{migration}/schedule', [ScheduleController::class, 'calendar']);
Route::get('datasets/{dataset}/wanted-sources', [WantedSourcesController::class, 'show']);
Route::post('datasets/{dataset}/wanted-sources/trials', [WantedSourcesController::class, 'try'])->defaults(May::ACT, Act::Work);
Route::post('datasets/{dataset}/wanted-sources/draws', [WantedSourcesController::class, 'draw'])->defaults(May::ACT, Act::Work);
Route::delete('datasets/{dataset}/wanted-sources', [WantedSourcesController::class, 'destroy'])->defaults(May::ACT, Act::Work);
Route::put('migrations/{migration}/schedule', [ScheduleController::class, 'keepAll'])->defaults(May::ACT, Act::Work);
Route::post('migrations/{migration}/draws', [ScheduleController::class, 'drawAll'])->defaults(May::ACT, Act::Work);
