<?php

declare(strict_types=1);

use App\Http\Controllers\Access\AccountController;
use App\Http\Controllers\Access\FirstPersonController;
use App\Http\Controllers\Access\PeopleController;
use App\Http\Controllers\Access\SecondFactorController;
use App\Http\Controllers\Access\SessionController;
use App\Http\Controllers\Board\BoardController;
use App\Http\Controllers\Board\DatasetController;
use App\Http\Controllers\Board\MigrationController;
use App\Http\Controllers\Board\NewsController;
use App\Http\Controllers\Deliver\DeliveryController;
use App\Http\Controllers\Deliver\ProfileController;
use App\Http\Controllers\Deliver\ReceiptController;
use App\Http\Controllers\Match\AdviceController;
use App\Http\Controllers\Match\KeyCountController;
use App\Http\Controllers\Match\PlanController;
use App\Http\Controllers\Match\PlanVersionController;
use App\Http\Controllers\Prepare\PreparationController;
use App\Http\Controllers\Review\CommentController;
use App\Http\Controllers\Review\DefectController;
use App\Http\Controllers\Review\DeliveredController;
use App\Http\Controllers\Review\FindingController;
use App\Http\Controllers\Review\ForgivenController;
use App\Http\Controllers\Review\ForMeController;
use App\Http\Controllers\Review\KeptFilterController;
use App\Http\Controllers\Review\RulingController;
use App\Http\Controllers\Review\UnmaskingController;
use App\Http\Controllers\Sign\ReportController;
use App\Http\Controllers\TakeAway\WorkbookController;
use App\Http\Controllers\Tally\RehearsalController;
use App\Http\Controllers\Tally\RunController;
use App\Http\Controllers\Tally\TallyController;
use App\Http\Controllers\Work\WorkController;
use App\Http\Middleware\KeepsTrail;
use App\Http\Middleware\NoTimeLimit;
use App\Http\Middleware\OnlyMembers;
use App\Http\Middleware\RequiresUnmaskedAccess;
use Illuminate\Support\Facades\Route;

// Access
Route::get('session', [SessionController::class, 'show']);
Route::post('session', [SessionController::class, 'store']);
Route::post('first-person', [FirstPersonController::class, 'store']);
Route::get('invitations/{token}', [PeopleController::class, 'invitation']);
Route::post('invitations/{token}/acceptance', [PeopleController::class, 'accept']);

Route::middleware(['auth', OnlyMembers::class, KeepsTrail::class])->group(function (): void {
    Route::delete('session', [SessionController::class, 'destroy']);
    Route::put('me/password', [AccountController::class, 'password']);
    Route::get('me/second-factor', [SecondFactorController::class, 'show']);
    Route::post('me/second-factor', [SecondFactorController::class, 'begin']);
    Route::put('me/second-factor', [SecondFactorController::class, 'confirm']);
    Route::post('me/second-factor/end', [SecondFactorController::class, 'end']);
    Route::get('me/sessions', [AccountController::class, 'sessions']);
    Route::delete('me/sessions/{session}', [AccountController::class, 'end'])->whereNumber('session');
    Route::get('people', [PeopleController::class, 'index']);
    Route::post('people/invitations', [PeopleController::class, 'invite']);
    Route::delete('people/invitations/{invitation}', [PeopleController::class, 'withdraw']);
    Route::put('people/{person}/lock', [PeopleController::class, 'lock']);
    Route::put('migrations/{migration}/people/{person}', [PeopleController::class, 'give'])->defaults(OnlyMembers::ADMINISTERS, true);
    Route::get('migrations/{migration}/trail', [PeopleController::class, 'trail']);

    Route::get('work', [WorkController::class, 'show']);
    Route::post('work/runs/{run}/end', [WorkController::class, 'end'])->defaults(OnlyMembers::ADMINISTERS, true);
    Route::post('work/runs/{run}/retry', [WorkController::class, 'retry'])->defaults(OnlyMembers::ADMINISTERS, true);

    // Board
    Route::get('migrations', [MigrationController::class, 'index']);
    Route::post('migrations', [MigrationController::class, 'store']);
    Route::get('migrations/{migration}/people', [MigrationController::class, 'people']);
    Route::get('migrations/{migration}/board', [BoardController::class, 'show']);
    Route::post('migrations/{migration}/datasets', [DatasetController::class, 'store']);
    Route::get('datasets/{dataset}', [DatasetController::class, 'show']);

    // Deliver
    Route::get('datasets/{dataset}/deliveries', [DeliveryController::class, 'index']);
    Route::post('datasets/{dataset}/deliveries', [DeliveryController::class, 'store']);
    Route::get('datasets/{dataset}/receipts', [ReceiptController::class, 'index']);
    Route::post('datasets/{dataset}/receipts', [ReceiptController::class, 'store']);
    Route::post('datasets/{dataset}/snapshots', [ReceiptController::class, 'query']);
    Route::put('receipts/{receipt}/chunks/{offset}', [ReceiptController::class, 'chunk'])->whereNumber('offset');
    Route::put('receipts/{receipt}/format', [ReceiptController::class, 'format']);
    Route::delete('receipts/{receipt}', [ReceiptController::class, 'destroy']);
    Route::get('datasets/{dataset}/other-deliveries', [DeliveryController::class, 'others']);
    Route::post('datasets/{dataset}/used-deliveries', [DeliveryController::class, 'use']);
    Route::post('deliveries/{delivery}/claims/{claim}/explanations', [DeliveryController::class, 'explain'])->whereNumber('claim');

    // Preparation
    Route::post('datasets/{dataset}/prepared-sides', [PreparationController::class, 'run']);

    // Match
    Route::put('datasets/{dataset}/plan', [PlanController::class, 'update']);
    Route::post('datasets/{dataset}/draft-joins', [PlanController::class, 'join']);
    Route::get('datasets/{dataset}/news', NewsController::class);
    Route::put('datasets/{dataset}/parameters', [PlanController::class, 'parameters']);
    Route::get('datasets/{dataset}/plan-versions', [PlanVersionController::class, 'index']);
    Route::get('datasets/{dataset}/plan-versions/{number}', [PlanVersionController::class, 'export'])->whereNumber('number');
    Route::get('datasets/{dataset}/plan-versions/{one}/against/{other}', [PlanVersionController::class, 'compare'])->whereNumber([
        'one',
        'other',
    ]);
    Route::post('datasets/{dataset}/plan-imports', [PlanVersionController::class, 'import']);
    Route::post('datasets/{dataset}/starting-plans', [PlanVersionController::class, 'keep']);
    Route::post('datasets/{dataset}/advice', [AdviceController::class, 'again']);
    Route::delete('datasets/{dataset}/advice', [AdviceController::class, 'cancel']);

    // Tally
    Route::post('datasets/{dataset}/runs', [RunController::class, 'store']);
    Route::get('runs/{run}', [RunController::class, 'show']);
    Route::post('runs/{run}/cancellation', [RunController::class, 'cancel']);
    Route::post('runs/{run}/retry', [RunController::class, 'retry']);
    Route::get('datasets/{dataset}/tallies', [TallyController::class, 'index']);
    Route::get('tallies/{tally}', [TallyController::class, 'show']);
    Route::put('tallies/{tally}/name', [TallyController::class, 'name']);
    Route::get('tallies/{tally}/rulings-left-behind', [TallyController::class, 'leftBehind']);
    Route::get('tallies/{tally}/against/{earlier}', [TallyController::class, 'compare']);
    Route::post('migrations/{migration}/runs', [RunController::class, 'all']);
    Route::get('migrations/{migration}/rehearsals', RehearsalController::class);
    Route::put('datasets/{dataset}/runs-on-delivery', [RunController::class, 'onDelivery']);

    // Deliver, Preparation and Match, where rows stand as they were delivered: masked, as everywhere
    Route::post('datasets/{dataset}/waiting-parts', [ReceiptController::class, 'waiting']);
    Route::get('receipts/{receipt}', [ReceiptController::class, 'show']);
    Route::get('datasets/{dataset}/profile', [ProfileController::class, 'show']);
    Route::get('deliveries/{delivery}/rows', [ProfileController::class, 'rows']);
    Route::get('deliveries/{delivery}/refused.csv', [DeliveryController::class, 'refusedCsv'])
        ->middleware(NoTimeLimit::class)
        ->defaults(KeepsTrail::TAKES_AWAY, true);
    Route::get('deliveries/{delivery}/refused', [DeliveryController::class, 'refused']);
    Route::post('deliveries/{delivery}/combinations', [ProfileController::class, 'combinations']);
    Route::post('deliveries/{delivery}/rows-sharing', [ProfileController::class, 'sharing']);
    Route::get('datasets/{dataset}/misfits', [ProfileController::class, 'misfits']);
    Route::post('datasets/{dataset}/preparation-trials', [PreparationController::class, 'try']);
    Route::get('datasets/{dataset}/left-out-rows', [PreparationController::class, 'leftOut']);
    Route::get('datasets/{dataset}/prepared-rows', [PreparationController::class, 'take'])
        ->middleware(NoTimeLimit::class)
        ->defaults(KeepsTrail::TAKES_AWAY, true);
    Route::post('datasets/{dataset}/prepared-rows/workbook', [PreparationController::class, 'askForWorkbook'])->defaults(
        KeepsTrail::TAKES_AWAY,
        true,
    );
    Route::get('datasets/{dataset}/plan', [PlanController::class, 'show']);
    Route::get('datasets/{dataset}/trial', [AdviceController::class, 'trial']);
    Route::get('datasets/{dataset}/advice', [AdviceController::class, 'show']);
    Route::post('datasets/{dataset}/key-counts', [KeyCountController::class, 'store']);
    Route::get('tallies/{tally}/records/{sequence}/delivered', [DeliveredController::class, 'show'])->whereNumber('sequence');
    Route::get('tallies/{tally}/records/{sequence}/keys-beside', [DeliveredController::class, 'beside'])->whereNumber('sequence');

    // What holds values as they are, and is of no use without them
    Route::middleware(RequiresUnmaskedAccess::class)->group(function (): void {
        Route::post('datasets/{dataset}/corrections', [DefectController::class, 'correct'])->middleware(NoTimeLimit::class);
        Route::get('datasets/{dataset}/corrections/{set}/lines', [DefectController::class, 'lines'])->scopeBindings();
        Route::get('datasets/{dataset}/corrections/{set}/taken', [DefectController::class, 'take'])
            ->defaults(KeepsTrail::TAKES_AWAY, true)
            ->scopeBindings()
            ->middleware(NoTimeLimit::class);
        Route::post('datasets/{dataset}/corrections/{set}/workbook', [DefectController::class, 'askForWorkbook'])
            ->scopeBindings()
            ->defaults(KeepsTrail::TAKES_AWAY, true);
        Route::get('tallies/{tally}/folder', [TallyController::class, 'folder'])
            ->middleware(NoTimeLimit::class)
            ->defaults(KeepsTrail::TAKES_AWAY, true);
    });

    // Review
    Route::get('tallies/{tally}/findings', [FindingController::class, 'index']);
    Route::get('tallies/{tally}/findings/count', [FindingController::class, 'count']);
    Route::get('tallies/{tally}/findings/taken', [FindingController::class, 'take'])
        ->middleware(NoTimeLimit::class)
        ->defaults(KeepsTrail::TAKES_AWAY, true);
    Route::get('tallies/{tally}/findings/table-schema', [FindingController::class, 'schema']);
    Route::post('tallies/{tally}/findings/workbook', [FindingController::class, 'askForWorkbook'])->defaults(KeepsTrail::TAKES_AWAY, true);
    Route::get('tallies/{tally}/records/{sequence}', [FindingController::class, 'record'])->whereNumber('sequence');
    Route::get('tallies/{tally}/records/{sequence}/rulings', [FindingController::class, 'history'])->whereNumber('sequence');
    Route::get('tallies/{tally}/patterns/{number}/value-pairs', [FindingController::class, 'valuePairs'])->whereNumber('number');
    Route::get('tallies/{tally}/patterns/{number}/rules', [FindingController::class, 'rules'])->whereNumber('number');
    Route::get('tallies/{tally}/agreeing-row', [FindingController::class, 'agreeing']);
    Route::get('tallies/{tally}/keys', [FindingController::class, 'keys']);
    Route::get('tallies/{tally}/forgiven/{number}', [ForgivenController::class, 'index'])->whereNumber('number');
    Route::get('tallies/{tally}/forgiven/{number}/taken', [ForgivenController::class, 'take'])
            ->defaults(KeepsTrail::TAKES_AWAY, true)
        ->whereNumber('number')
        ->middleware(NoTimeLimit::class);
    Route::get('datasets/{dataset}/defects', [DefectController::class, 'index']);
    Route::get('datasets/{dataset}/defects/taken', [DefectController::class, 'takeDefects'])
        ->middleware(NoTimeLimit::class)
        ->defaults(KeepsTrail::TAKES_AWAY, true);
    Route::put('rulings/{ruling}/defect', [DefectController::class, 'assign']);
    Route::get('datasets/{dataset}/corrections', [DefectController::class, 'corrections']);
    Route::get('tallies/{tally}/comments', [CommentController::class, 'index']);
    Route::post('tallies/{tally}/comments', [CommentController::class, 'store']);
    Route::get('datasets/{dataset}/kept-filters', [KeptFilterController::class, 'index']);
    Route::post('datasets/{dataset}/kept-filters', [KeptFilterController::class, 'store']);
    Route::delete('kept-filters/{filter}', [KeptFilterController::class, 'destroy']);
    Route::get('datasets/{dataset}/unmaskings', [UnmaskingController::class, 'index']);
    Route::post('datasets/{dataset}/unmaskings', [UnmaskingController::class, 'store']);
    Route::delete('datasets/{dataset}/unmaskings', [UnmaskingController::class, 'destroy']);
    Route::get('for-me', ForMeController::class);
    Route::get('tallies/{tally}/rulings', [RulingController::class, 'index']);
    Route::post('tallies/{tally}/rulings', [RulingController::class, 'store']);
    Route::post('rulings/{ruling}/undo', [RulingController::class, 'undo']);

    // Preparation and Review, to be taken away
    Route::get('workbooks', [WorkbookController::class, 'index']);
    Route::delete('workbooks/{workbook}', [WorkbookController::class, 'destroy']);
    Route::get('workbooks/{workbook}/file', [WorkbookController::class, 'file'])
        ->middleware(NoTimeLimit::class)
        ->defaults(KeepsTrail::TAKES_AWAY, true);

    // Sign
    Route::get('tallies/{tally}/report', [ReportController::class, 'page'])->defaults(KeepsTrail::TAKES_AWAY, true);
    Route::post('tallies/{tally}/report-orders', [ReportController::class, 'order']);
    Route::get('report-orders/{order}', [ReportController::class, 'show']);
    Route::get('reports/{report}/pdf', [ReportController::class, 'pdf'])->defaults(KeepsTrail::TAKES_AWAY, true);
});
