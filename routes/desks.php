<?php

declare(strict_types=1);

// The desks of Review, where rows and values stand as they were prepared: masked, as everywhere.

use App\Http\Controllers\Review\BridgeController;
use App\Http\Controllers\Review\NearKeyController;
use App\Http\Controllers\Review\NearValueController;
use App\Http\Controllers\Review\RepeatsController;
use App\Http\Controllers\Review\RowListController;
use App\Http\Middleware\KeepsTrail;
use App\Http\Middleware\May;
use App\Http\Middleware\NoTimeLimit;
use App\Http\Middleware\RequiresContent;
use App\Http\Middleware\RequiresUnmaskedAccess;
use App\Policies\Act;
use Illuminate\Support\Facades\Route;

Route::post('datasets/{dataset}/repeat-looks', [RepeatsController::class, 'look'])->defaults(May::ACT, Act::View);
Route::post('datasets/{dataset}/near-values', [NearValueController::class, 'look'])->defaults(May::ACT, Act::View);
Route::post('datasets/{dataset}/near-values/rulings', [NearValueController::class, 'rule'])->defaults(May::ACT, Act::Work);
Route::post('datasets/{dataset}/kept-rows', [RepeatsController::class, 'choose'])->defaults(May::ACT, Act::Work);
Route::post('datasets/{dataset}/policy-trials', [RepeatsController::class, 'try'])->defaults(May::ACT, Act::View);
Route::get('datasets/{dataset}/bridges', [BridgeController::class, 'index']);
Route::post('datasets/{dataset}/bridges/rulings', [BridgeController::class, 'rule'])->defaults(May::ACT, Act::Work);
Route::post('datasets/{dataset}/bridges/corrections', [BridgeController::class, 'correct'])
    ->defaults(May::ACT, Act::Rule)
    ->middleware([RequiresUnmaskedAccess::class, RequiresContent::class]);
Route::put('datasets/{dataset}/bridges/table', [BridgeController::class, 'put'])
    ->defaults(May::ACT, Act::Work)
    ->middleware(RequiresUnmaskedAccess::class);
Route::get('datasets/{dataset}/bridges/file', [BridgeController::class, 'take'])->defaults(KeepsTrail::TAKES_AWAY, true);
Route::post('datasets/{dataset}/row-lists', [RowListController::class, 'look'])->defaults(May::ACT, Act::View);
Route::get('datasets/{dataset}/row-lists/file', [RowListController::class, 'take'])
    ->middleware(NoTimeLimit::class)
    ->defaults(KeepsTrail::TAKES_AWAY, true);
Route::post('datasets/{dataset}/row-lists/workbook', [RowListController::class, 'askForWorkbook'])
    ->defaults(May::ACT, Act::View)
    ->defaults(KeepsTrail::TAKES_AWAY, true);
Route::post('tallies/{tally}/near-keys', [NearKeyController::class, 'look'])->defaults(May::ACT, Act::View);
Route::put('tallies/{tally}/near-keys/equivalents', [NearKeyController::class, 'equivalents'])->defaults(May::ACT, Act::Work);
Route::post('tallies/{tally}/near-keys/cancellation', [NearKeyController::class, 'cancel'])->defaults(May::ACT, Act::Work);
Route::post('tallies/{tally}/near-keys/rulings', [NearKeyController::class, 'rule'])->defaults(May::ACT, Act::Work);
