<?php

declare(strict_types=1);

namespace App\Http\Controllers\Work;

use App\Actions\Tally\CancelRun;
use App\Actions\Tally\RetryRun;
use App\Http\Controllers\Controller;
use App\Jobs\Patience;
use App\Models\Run;
use App\Queries\Work\WorkOfInstallation;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** What the workers of the installation are at, for its administrators. */
final class WorkController extends Controller
{
    public function show(Request $request, WorkOfInstallation $work): JsonResponse
    {

        return response()->json($work(array_column(Patience::cases(), 'value')));
    }

    public function end(Request $request, Run $run, CancelRun $cancelRun): Response
    {
        $cancelRun($run, $this->person($request));

        return response()->noContent();
    }

    /** Again for whoever started it: administering starts nothing of one's own. */
    public function retry(Request $request, Run $run, RetryRun $retryRun): Response
    {
        $retryRun($run, $run->user);

        return response()->noContent();
    }
}
