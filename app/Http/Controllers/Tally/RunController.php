<?php

declare(strict_types=1);

namespace App\Http\Controllers\Tally;

use App\Actions\Tally\CancelRun;
use App\Actions\Tally\RetryRun;
use App\Actions\Tally\StartAllRuns;
use App\Actions\Tally\StartRun;
use App\Http\Controllers\Controller;
use App\Http\Requests\Tally\StartRunRequest;
use App\Http\Resources\RunResource;
use App\Models\Dataset;
use App\Models\Migration;
use App\Models\Run;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

final class RunController extends Controller
{
    public function store(StartRunRequest $request, Dataset $dataset, StartRun $startRun): RunResource
    {

        return RunResource::make($startRun($dataset, $this->person($request), $request->chosen(), $request->name()));
    }

    /** The same again, after it failed or was cancelled. */
    public function retry(Request $request, Run $run, RetryRun $retryRun): RunResource
    {

        return RunResource::make($retryRun($run, $this->person($request)));
    }

    /** All datasets of a migration. */
    public function all(StartRunRequest $request, Migration $migration, StartAllRuns $startAllRuns): JsonResponse
    {

        return response()->json($startAllRuns($migration, $this->person($request), $request->name()), Response::HTTP_ACCEPTED);
    }

    /** Whether a new delivery is tallied by itself. */
    public function onDelivery(Request $request, Dataset $dataset): Response
    {
        $request->validate(['runsOnDelivery' => ['required', 'boolean']]);
        $dataset->update(['runs_on_delivery' => $request->boolean('runsOnDelivery')]);

        return response()->noContent();
    }

    public function show(Run $run): RunResource
    {

        return RunResource::make($run);
    }

    public function cancel(Request $request, Run $run, CancelRun $cancelRun): RunResource
    {
        return RunResource::make($cancelRun($run, $this->person($request)));
    }
}
