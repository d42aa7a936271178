<?php

declare(strict_types=1);

use App\Http\Controllers\Access\AccountController;
use App\Http\Controllers\Access\FirstPersonController;
use App\Http\Controllers\Access\PeopleController;
use App\Http\Controllers\Access\SecondFactorController;
use App\Http\Controllers\Access\SessionController;
use App\Http\Controllers\Access\TokenController;
use App\Http\Controllers\Board\BoardController;
use App\Http\Controllers\Board\DatasetController;
use App\Http\Controllers\Board\MigrationController;
use App\Http\Controllers\Board\NewsController;
use App\Http\Controllers\Board\SharedDeliveryController;
use App\Http\Controllers\Deliver\DeliveryController;
use App\Http\Controllers\Deliver\ProfileController;
use App\Http\Controllers\Deliver\ReceiptController;
use App\Http\Controllers\Match\AdviceController;
use App\Http\Controllers\Match\KeyCountController;
use App\Http\Controllers\Match\PlanController;
use App\Http\Controllers\Match\PlanVersionController;
use App\Http\Controllers\Prepare\PreparationController;
use App\Http\Controllers\Prepare\ProposalController;
use App\Http\Controllers\Prove\EyeCheckController;
use App\Http\Controllers\Prove\PopulationController;
use App\Http\Controllers\Prove\RequiredRecordController;
use App\Http\Controllers\Prove\TotalController;
use App\Http\Controllers\Review\CommentController;
use App\Http\Controllers\Review\DefectController;
use App\Http\Controllers\Review\DeliveredController;
use App\Http\Controllers\Review\FindingController;
use App\Http\Controllers\Review\ForgivenController;
use App\Http\Controllers\Review\ForMeController;
use App\Http\Controllers\Review\KeptFilterController;
use App\Http\Controllers\Review\RulingController;
use App\Http\Controllers\Review\UnmaskingController;
use App\Http\Controllers\TakeAway\WorkbookController;
use App\Http\Controllers\Tally\RehearsalController;
use App\Http\Controllers\Tally\RunController;
use App\Http\Controllers\Tally\TallyController;
use App\Http\Controllers\Work\WorkController;
use App\Http\Middleware\KeepsTrail;
use App\Http\Middleware\May;
use App\Http\Middleware\NoTimeLimit;
use App\Http\Middleware\RequiresContent;
use App\Http\Middleware\RequiresUnmaskedAccess;
use App\Policies\Act;
use Illuminate\Support\Facades\Route;

// Access
Route::get('session', [SessionController::class, 'show']);
Route::post('session', [SessionController::class, 'store']);
Route::post('first-person', [FirstPersonController::class, 'store']);
Route::get('invitations/{token}', [PeopleController::class, 'invitation']);
Route::post('invitations/{token}/acceptance', [PeopleController::class, 'accept']);

Route::middleware(['auth:web,sanctum', KeepsTrail::class, May::class])->group(function (): void {
    Route::delete('session', [SessionController::class, 'destroy'])->defaults(May::ACT, Act::KeepAccount);
    Route::put('me/password', [AccountController::class, 'password'])->defaults(May::ACT, Act::KeepAccount);
    Route::get('me/second-factor', [SecondFactorController::class, 'show'])->defaults(May::ACT, Act::KeepAccount);
    Route::post('me/second-factor', [SecondFactorController::class, 'begin'])->defaults(May::ACT, Act::KeepAccount);
    Route::put('me/second-factor', [SecondFactorController::class, 'confirm'])->defaults(May::ACT, Act::KeepAccount);
    Route::post('me/second-factor/end', [SecondFactorController::class, 'end'])->defaults(May::ACT, Act::KeepAccount);
    Route::get('me/sessions', [AccountController::class, 'sessions'])->defaults(May::ACT, Act::KeepAccount);
    Route::delete('me/sessions/{session}', [AccountController::class, 'end'])->defaults(May::ACT, Act::KeepAccount)->whereNumber('session');
    Route::get('me/tokens', [TokenController::class, 'index'])->defaults(May::ACT, Act::KeepAccount);
    Route::post('me/tokens', [TokenController::class, 'store'])->defaults(May::ACT, Act::KeepAccount);
    Route::delete('me/tokens/{number}', [TokenController::class, 'destroy'])->defaults(May::ACT, Act::KeepAccount)->whereNumber('number');
    Route::get('people', [PeopleController::class, 'index'])->defaults(May::ACT, Act::Administer);
    Route::post('people/invitations', [PeopleController::class, 'invite'])->defaults(May::ACT, Act::Administer);
    Route::delete('people/invitations/{invitation}', [PeopleController::class, 'withdraw'])->defaults(May::ACT, Act::Administer);
    Route::put('people/{person}/lock', [PeopleController::class, 'lock'])->defaults(May::ACT, Act::Administer);
    Route::put('migrations/{migration}/people/{person}', [PeopleController::class, 'give'])->defaults(May::ACT, Act::Administer);
    Route::get('migrations/{migration}/trail', [PeopleController::class, 'trail'])->defaults(May::ACT, Act::Audit);
    Route::get('migrations/{migration}/trail/taken', [PeopleController::class, 'takeTrail'])
        ->middleware(NoTimeLimit::class)
        ->defaults(May::ACT, Act::Audit)
        ->defaults(KeepsTrail::TAKES_AWAY, true);

    Route::get('work', [WorkController::class, 'show'])->defaults(May::ACT, Act::Administer);
    Route::post('work/runs/{run}/end', [WorkController::class, 'end'])->defaults(May::ACT, Act::Administer);
    Route::post('work/runs/{run}/retry', [WorkController::class, 'retry'])->defaults(May::ACT, Act::Administer);

    // Board
    Route::get('migrations', [MigrationController::class, 'index']);
    Route::post('migrations', [MigrationController::class, 'store'])->defaults(May::ACT, Act::Administer);
    Route::get('migrations/{migration}/people', [MigrationController::class, 'people']);
    Route::get('migrations/{migration}/board', [BoardController::class, 'show']);
    Route::post('migrations/{migration}/datasets', [DatasetController::class, 'store'])->defaults(May::ACT, Act::Work);
    Route::get('datasets/{dataset}', [DatasetController::class, 'show']);

    // Deliver
    Route::get('datasets/{dataset}/deliveries', [DeliveryController::class, 'index']);
    Route::post('datasets/{dataset}/deliveries', [DeliveryController::class, 'store'])->defaults(May::ACT, Act::Work);
    Route::get('datasets/{dataset}/receipts', [ReceiptController::class, 'index']);
    Route::post('datasets/{dataset}/receipts', [ReceiptController::class, 'store'])->defaults(May::ACT, Act::Work);
    Route::post('datasets/{dataset}/snapshots', [ReceiptController::class, 'query'])->defaults(May::ACT, Act::Work);
    Route::put('receipts/{receipt}/chunks/{offset}', [ReceiptController::class, 'chunk'])
        ->defaults(May::ACT, Act::Work)
        ->whereNumber('offset');
    Route::put('receipts/{receipt}/format', [ReceiptController::class, 'format'])->defaults(May::ACT, Act::Work);
    Route::post('receipts/{receipt}/sheets', [ReceiptController::class, 'sheets'])->defaults(May::ACT, Act::Work);
    Route::delete('receipts/{receipt}', [ReceiptController::class, 'destroy'])->defaults(May::ACT, Act::Work);
    Route::get('datasets/{dataset}/other-deliveries', [DeliveryController::class, 'others']);
    Route::post('datasets/{dataset}/used-deliveries', [DeliveryController::class, 'use'])->defaults(May::ACT, Act::Work);
    Route::post('deliveries/{delivery}/claims/{claim}/explanations', [DeliveryController::class, 'explain'])
        ->defaults(May::ACT, Act::Work)
        ->whereNumber('claim');

    // Preparation
    Route::post('datasets/{dataset}/prepared-sides', [PreparationController::class, 'run'])->defaults(May::ACT, Act::Work);

    // Match
    Route::put('datasets/{dataset}/plan', [PlanController::class, 'update'])->defaults(May::ACT, Act::Work);
    Route::put('datasets/{dataset}/plan-defaults', [PlanController::class, 'keepDefaults'])->defaults(May::ACT, Act::Work);
    Route::delete('datasets/{dataset}/plan-defaults', [PlanController::class, 'forgetDefaults'])->defaults(May::ACT, Act::Work);
    Route::post('datasets/{dataset}/draft-joins', [PlanController::class, 'join'])->defaults(May::ACT, Act::Work);
    Route::get('datasets/{dataset}/news', NewsController::class);
    Route::put('datasets/{dataset}/parameters', [PlanController::class, 'parameters'])->defaults(May::ACT, Act::Work);
    Route::get('datasets/{dataset}/plan-versions', [PlanVersionController::class, 'index']);
    Route::get('datasets/{dataset}/plan-versions/{number}', [PlanVersionController::class, 'export'])->whereNumber('number');
    Route::get('datasets/{dataset}/plan-versions/{one}/against/{other}', [PlanVersionController::class, 'compare'])->whereNumber([
        'one',
        'other',
    ]);
    Route::post('datasets/{dataset}/plan-imports', [PlanVersionController::class, 'import'])->defaults(May::ACT, Act::Work);
    Route::post('datasets/{dataset}/starting-plans', [PlanVersionController::class, 'keep'])->defaults(May::ACT, Act::Work);
    Route::post('datasets/{dataset}/advice', [AdviceController::class, 'again'])->defaults(May::ACT, Act::Work);
    Route::delete('datasets/{dataset}/advice', [AdviceController::class, 'cancel'])->defaults(May::ACT, Act::Work);

    // Tally
    Route::post('datasets/{dataset}/runs', [RunController::class, 'store'])->defaults(May::ACT, Act::Work);
    Route::get('runs/{run}', [RunController::class, 'show']);
    Route::post('runs/{run}/cancellation', [RunController::class, 'cancel'])->defaults(May::ACT, Act::Work);
    Route::post('runs/{run}/retry', [RunController::class, 'retry'])->defaults(May::ACT, Act::Work);
    Route::get('datasets/{dataset}/tallies', [TallyController::class, 'index']);
    Route::get('tallies/{tally}', [TallyController::class, 'show']);
    Route::put('tallies/{tally}/name', [TallyController::class, 'name'])->defaults(May::ACT, Act::Work);
    Route::post('migrations/{migration}/runs', [RunController::class, 'all'])->defaults(May::ACT, Act::Work);
    Route::get('migrations/{migration}/rehearsals', RehearsalController::class);
    Route::get('migrations/{migration}/shared-deliveries', [SharedDeliveryController::class, 'index']);
    Route::post('migrations/{migration}/landing-demands', [SharedDeliveryController::class, 'demand'])->defaults(May::ACT, Act::Work);
    Route::put('datasets/{dataset}/runs-on-delivery', [RunController::class, 'onDelivery'])->defaults(May::ACT, Act::Work);
    // What is nothing without the content
    Route::middleware(RequiresContent::class)->group(function (): void {
        Route::get('tallies/{tally}/against/{earlier}', [TallyController::class, 'compare']);
        Route::get('tallies/{tally}/rulings-left-behind', [TallyController::class, 'leftBehind']);
    });

    // Deliver, Preparation and Match, where rows stand as they were delivered: masked, as everywhere
    Route::post('datasets/{dataset}/waiting-parts', [ReceiptController::class, 'waiting'])->defaults(May::ACT, Act::View);
    Route::get('receipts/{receipt}', [ReceiptController::class, 'show']);
    Route::get('datasets/{dataset}/profile', [ProfileController::class, 'show']);
    Route::post('datasets/{dataset}/profile', [ProfileController::class, 'again'])->defaults(May::ACT, Act::Work);
    Route::get('datasets/{dataset}/misfits', [ProfileController::class, 'misfits']);
    Route::post('datasets/{dataset}/preparation-trials', [PreparationController::class, 'try'])->defaults(May::ACT, Act::View);
    Route::post('datasets/{dataset}/look-up-proposals', [ProposalController::class, 'lookUps'])->defaults(May::ACT, Act::Work);
    Route::post('datasets/{dataset}/crosswalk-proposals', [ProposalController::class, 'crosswalk'])->defaults(May::ACT, Act::Work);
    require __DIR__.'/desks.php';
    require __DIR__.'/sources.php';
    Route::get('datasets/{dataset}/left-out-rows', [PreparationController::class, 'leftOut']);
    Route::get('datasets/{dataset}/prepared-rows', [PreparationController::class, 'take'])
        ->middleware(NoTimeLimit::class)
        ->defaults(KeepsTrail::TAKES_AWAY, true);
    Route::post('datasets/{dataset}/prepared-rows/workbook', [PreparationController::class, 'askForWorkbook'])
        ->defaults(May::ACT, Act::View)
        ->defaults(KeepsTrail::TAKES_AWAY, true);
    Route::get('datasets/{dataset}/plan', [PlanController::class, 'show']);
    Route::get('datasets/{dataset}/trial', [AdviceController::class, 'trial']);
    Route::get('datasets/{dataset}/advice', [AdviceController::class, 'show']);
    Route::post('datasets/{dataset}/key-counts', [KeyCountController::class, 'store'])->defaults(May::ACT, Act::View);
    // What is nothing without the content
    Route::middleware(RequiresContent::class)->group(function (): void {
        Route::get('deliveries/{delivery}/rows', [ProfileController::class, 'rows']);
        Route::get('deliveries/{delivery}/refused.csv', [DeliveryController::class, 'refusedCsv'])
            ->middleware(NoTimeLimit::class)
            ->defaults(KeepsTrail::TAKES_AWAY, true);
        Route::get('deliveries/{delivery}/refused', [DeliveryController::class, 'refused']);
        Route::post('deliveries/{delivery}/combinations', [ProfileController::class, 'combinations'])->defaults(May::ACT, Act::View);
        Route::post('deliveries/{delivery}/rows-sharing', [ProfileController::class, 'sharing'])->defaults(May::ACT, Act::View);
        Route::get('tallies/{tally}/records/{sequence}/delivered', [DeliveredController::class, 'show'])->whereNumber('sequence');
        Route::get('tallies/{tally}/records/{sequence}/keys-beside', [DeliveredController::class, 'beside'])->whereNumber('sequence');
    });

    // What holds values as they are, and is of no use without them
    Route::middleware([RequiresUnmaskedAccess::class, RequiresContent::class])->group(function (): void {
        Route::post('datasets/{dataset}/corrections', [DefectController::class, 'correct'])
            ->defaults(May::ACT, Act::Rule)
            ->middleware(NoTimeLimit::class);
        Route::get('datasets/{dataset}/corrections/{set}/lines', [DefectController::class, 'lines'])->scopeBindings();
        Route::get('datasets/{dataset}/corrections/{set}/taken', [DefectController::class, 'take'])
            ->defaults(KeepsTrail::TAKES_AWAY, true)
            ->scopeBindings()
            ->middleware(NoTimeLimit::class);
        Route::post('datasets/{dataset}/corrections/{set}/workbook', [DefectController::class, 'askForWorkbook'])
            ->defaults(May::ACT, Act::View)
            ->scopeBindings()
            ->defaults(KeepsTrail::TAKES_AWAY, true);
        Route::get('tallies/{tally}/folder', [TallyController::class, 'folder'])
            ->middleware(NoTimeLimit::class)
            ->defaults(KeepsTrail::TAKES_AWAY, true);
    });

    // Review
    Route::get('datasets/{dataset}/defects', [DefectController::class, 'index']);
    Route::get('datasets/{dataset}/defects/taken', [DefectController::class, 'takeDefects'])
        ->middleware(NoTimeLimit::class)
        ->defaults(KeepsTrail::TAKES_AWAY, true);
    Route::put('rulings/{ruling}/defect', [DefectController::class, 'assign'])->defaults(May::ACT, Act::Rule);
    Route::get('datasets/{dataset}/corrections', [DefectController::class, 'corrections']);
    Route::get('datasets/{dataset}/kept-filters', [KeptFilterController::class, 'index']);
    Route::post('datasets/{dataset}/kept-filters', [KeptFilterController::class, 'store'])->defaults(May::ACT, Act::Rule);
    Route::delete('kept-filters/{filter}', [KeptFilterController::class, 'destroy'])->defaults(May::ACT, Act::Rule);
    Route::get('datasets/{dataset}/unmaskings', [UnmaskingController::class, 'index']);
    Route::post('datasets/{dataset}/unmaskings', [UnmaskingController::class, 'store'])->defaults(May::ACT, Act::Unmask);
    Route::delete('datasets/{dataset}/unmaskings', [UnmaskingController::class, 'destroy'])->defaults(May::ACT, Act::Unmask);
    Route::get('for-me', ForMeController::class);
    Route::get('tallies/{tally}/rulings', [RulingController::class, 'index']);
    // What is nothing without the content
    Route::middleware(RequiresContent::class)->group(function (): void {
        Route::get('tallies/{tally}/findings', [FindingController::class, 'index']);
        Route::get('tallies/{tally}/findings/count', [FindingController::class, 'count']);
        Route::get('tallies/{tally}/findings/worth', [FindingController::class, 'worth']);
        Route::get('tallies/{tally}/findings/by-column', [FindingController::class, 'byColumn']);
        Route::get('tallies/{tally}/findings/place', [FindingController::class, 'place']);
        Route::get('tallies/{tally}/findings/taken', [FindingController::class, 'take'])
            ->middleware(NoTimeLimit::class)
            ->defaults(KeepsTrail::TAKES_AWAY, true);
        Route::get('tallies/{tally}/findings/table-schema', [FindingController::class, 'schema']);
        Route::post('tallies/{tally}/findings/workbook', [FindingController::class, 'askForWorkbook'])
            ->defaults(May::ACT, Act::View)
            ->defaults(KeepsTrail::TAKES_AWAY, true);
        Route::get('tallies/{tally}/records/{sequence}', [FindingController::class, 'record'])->whereNumber('sequence');
        Route::get('tallies/{tally}/records/{sequence}/rulings', [FindingController::class, 'history'])->whereNumber('sequence');
        Route::get('tallies/{tally}/patterns/{number}/value-pairs', [FindingController::class, 'valuePairs'])->whereNumber('number');
        Route::get('tallies/{tally}/patterns/{number}/rules', [FindingController::class, 'rules'])
            ->defaults(May::ACT, Act::Work)
            ->whereNumber('number');
        Route::get('tallies/{tally}/agreeing-row', [FindingController::class, 'agreeing']);
        Route::get('tallies/{tally}/keys', [FindingController::class, 'keys']);
        Route::get('tallies/{tally}/forgiven/{number}', [ForgivenController::class, 'index'])->whereNumber('number');
        Route::get('tallies/{tally}/forgiven/{number}/taken', [ForgivenController::class, 'take'])
                ->defaults(KeepsTrail::TAKES_AWAY, true)
            ->whereNumber('number')
            ->middleware(NoTimeLimit::class);
        Route::get('tallies/{tally}/comments', [CommentController::class, 'index']);
        Route::post('tallies/{tally}/comments', [CommentController::class, 'store'])->defaults(May::ACT, Act::Comment);
        Route::post('rulings/{ruling}/undo', [RulingController::class, 'undo'])->defaults(May::ACT, Act::Rule);
        Route::post('tallies/{tally}/rulings', [RulingController::class, 'store'])->defaults(May::ACT, Act::Rule);
    });

    // Prove
    Route::get('tallies/{tally}/totals', [TotalController::class, 'index']);
    Route::get('datasets/{dataset}/required-record-proposals', [RequiredRecordController::class, 'proposals'])
        ->defaults(May::ACT, Act::Work);
    Route::get('tallies/{tally}/required-records', [RequiredRecordController::class, 'index']);
    Route::get('tallies/{tally}/population', PopulationController::class);
    Route::get('tallies/{tally}/eye-checks', [EyeCheckController::class, 'index']);
    // What is nothing without the content
    Route::middleware(RequiresContent::class)->group(function (): void {
        Route::get('tallies/{tally}/totals/{number}/groups', [TotalController::class, 'groups'])->whereNumber('number');
        Route::post('tallies/{tally}/totals/{number}/published-figures', [TotalController::class, 'publish'])
            ->defaults(May::ACT, Act::Work)
            ->whereNumber('number');
        Route::get('tallies/{tally}/required-records/{number}/lines', [RequiredRecordController::class, 'lines'])->whereNumber('number');
        Route::get('tallies/{tally}/required-records/{number}/taken', [RequiredRecordController::class, 'take'])
            ->middleware(NoTimeLimit::class)
            ->defaults(KeepsTrail::TAKES_AWAY, true)
            ->whereNumber('number');
        Route::post('tallies/{tally}/eye-checks', [EyeCheckController::class, 'store'])->defaults(May::ACT, Act::Rule);
        Route::get('eye-checks/{eyeCheck}', [EyeCheckController::class, 'show']);
        Route::get('eye-checks/{eyeCheck}/rows/{place}', [EyeCheckController::class, 'row'])->whereNumber('place');
        Route::post('eye-checks/{eyeCheck}/verdicts', [EyeCheckController::class, 'say'])->defaults(May::ACT, Act::Rule);
        Route::post('eye-checks/{eyeCheck}/people', [EyeCheckController::class, 'give'])->defaults(May::ACT, Act::Rule);
        Route::get('tallies/{tally}/totals/{number}/picture', [TotalController::class, 'picture'])->whereNumber('number');
    });

    // Preparation and Review, to be taken away
    Route::get('workbooks', [WorkbookController::class, 'index']);
    Route::delete('workbooks/{workbook}', [WorkbookController::class, 'destroy'])->defaults(May::ACT, Act::View);
    Route::get('workbooks/{workbook}/file', [WorkbookController::class, 'file'])
        ->middleware(NoTimeLimit::class)
        ->defaults(KeepsTrail::TAKES_AWAY, true);

    require __DIR__.'/sign.php';
});
