<?php

declare(strict_types=1);

namespace App\Http\Controllers\Tally;

use App\Actions\Tally\CancelRun;
use App\Actions\Tally\StartRun;
use App\Http\Controllers\Controller;
use App\Http\Resources\RunResource;
use App\Models\Dataset;
use App\Models\Run;
use Illuminate\Http\Request;

final class RunController extends Controller
{
    public function store(Request $request, Dataset $dataset, StartRun $startRun): RunResource
    {
        $this->allow('work', $dataset->migration);

        return RunResource::make($startRun($dataset, $this->person($request)));
    }

    public function show(Run $run): RunResource
    {
        $this->allow('view', $run->dataset->migration);

        return RunResource::make($run);
    }

    public function cancel(Run $run, CancelRun $cancelRun): RunResource
    {
        $this->allow('work', $run->dataset->migration);

        return RunResource::make($cancelRun($run));
    }
}
