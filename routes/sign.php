<?php

declare(strict_types=1);

use App\Http\Controllers\Retention\RetentionController;
use App\Http\Controllers\Sign\LimitController;
use App\Http\Controllers\Sign\PackCheckController;
use App\Http\Controllers\Sign\PackController;
use App\Http\Controllers\Sign\ReportController;
use App\Http\Controllers\Sign\ReportLinkController;
use App\Http\Controllers\Sign\SignOffController;
use App\Http\Middleware\KeepsTrail;
use App\Http\Middleware\May;
use App\Http\Middleware\SeesReports;
use App\Policies\Act;
use Illuminate\Support\Facades\Route;

// Sign: of those who are signed in, as routes/api.php says.
Route::get('tallies/{tally}/sign-off', [SignOffController::class, 'show']);
Route::post('tallies/{tally}/sign-off/ends', [SignOffController::class, 'end'])->defaults(May::ACT, Act::Sign);
Route::put('tallies/{tally}/report-texts', [SignOffController::class, 'say'])->defaults(May::ACT, Act::Work);
Route::post('tallies/{tally}/waivers', [SignOffController::class, 'waive'])->defaults(May::ACT, Act::Waive);
Route::post('migrations/{migration}/signatures', [SignOffController::class, 'sign'])->defaults(May::ACT, Act::Sign);
Route::delete('report-links/{reportLink}', [ReportLinkController::class, 'revoke'])->defaults(May::ACT, Act::Sign);
Route::get('seal-key', [PackCheckController::class, 'key']);
Route::post('seal-key/rotations', [PackCheckController::class, 'rotate'])->defaults(May::ACT, Act::Administer);
Route::post('pack-checks', [PackCheckController::class, 'store'])->defaults(May::ACT, Act::View);
Route::put('pack-checks/{inspection}/chunks/{offset}', [PackCheckController::class, 'chunk'])
    ->defaults(May::ACT, Act::View)
    ->whereNumber('offset');
Route::get('pack-checks/{inspection}', [PackCheckController::class, 'show']);
Route::get('pack-orders/{packOrder}', [PackController::class, 'show']);
Route::get('datasets/{dataset}/limits', [LimitController::class, 'show']);
Route::put('datasets/{dataset}/limits', [LimitController::class, 'update'])->defaults(May::ACT, Act::SetLimits);
Route::get('migrations/{migration}/signing-terms', [LimitController::class, 'terms']);
Route::put('migrations/{migration}/signing-terms', [LimitController::class, 'changeTerms'])->defaults(May::ACT, Act::SetLimits);
Route::get('report-orders/{order}', [ReportController::class, 'show']);
Route::get('migrations/{migration}/content', [RetentionController::class, 'index']);
Route::post('migrations/{migration}/purge-previews', [RetentionController::class, 'preview'])->defaults(May::ACT, Act::Purge);
Route::post('migrations/{migration}/purges', [RetentionController::class, 'purge'])->defaults(May::ACT, Act::Purge);
// For whoever signs, and for whom the migration says
Route::middleware(SeesReports::class)->group(function (): void {
    Route::get('tallies/{tally}/signatures/{signature}/state', [SignOffController::class, 'state'])
        ->defaults(KeepsTrail::TAKES_AWAY, true);
    Route::get('tallies/{tally}/report-links', [ReportLinkController::class, 'index']);
    Route::post('tallies/{tally}/report-links', [ReportLinkController::class, 'store'])->defaults(May::ACT, Act::Sign);
    Route::get('tallies/{tally}/packs', [PackController::class, 'index']);
    Route::post('tallies/{tally}/pack-orders', [PackController::class, 'order'])->defaults(May::ACT, Act::View);
    Route::post('tallies/{tally}/clear-pack-orders', [PackController::class, 'orderClear'])->defaults(May::ACT, Act::TakeClear);
    Route::get('packs/{pack}/zip', [PackController::class, 'download'])->defaults(KeepsTrail::TAKES_AWAY, true);
    Route::get('migrations/{migration}/report', [ReportController::class, 'ofMigration'])->defaults(KeepsTrail::TAKES_AWAY, true);
    Route::get('tallies/{tally}/report', [ReportController::class, 'page'])->defaults(KeepsTrail::TAKES_AWAY, true);
    Route::post('tallies/{tally}/report-workbook', [ReportController::class, 'askForWorkbook'])
        ->defaults(May::ACT, Act::View)
        ->defaults(KeepsTrail::TAKES_AWAY, true);
    Route::get('tallies/{tally}/sign-off/taken', [SignOffController::class, 'take'])->defaults(KeepsTrail::TAKES_AWAY, true);
    Route::post('tallies/{tally}/report-orders', [ReportController::class, 'order'])->defaults(May::ACT, Act::View);
    Route::get('reports/{report}/pdf', [ReportController::class, 'pdf'])->defaults(KeepsTrail::TAKES_AWAY, true);
});
