<?php

declare(strict_types=1);

namespace App\Http\Controllers\Sources;

use App\Actions\Sources\DrawDataset;
use App\Actions\Sources\KeepSchedule;
use App\Http\Controllers\Controller;
use App\Http\Requests\Sources\ScheduleRequest;
use App\Models\Dataset;
use App\Models\Migration;
use App\Problems\Conflict;
use App\Queries\Sources\ScheduleView;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** When a dataset is drawn and tallied by itself, and what became of it. */
final class ScheduleController extends Controller
{
    public function __construct(private readonly ScheduleView $view) {}

    public function show(Dataset $dataset): JsonResponse
    {
        return response()->json($this->view->ofDataset($dataset));
    }

    public function calendar(Migration $migration): JsonResponse
    {
        return response()->json($this->view->ofMigration($migration));
    }

    public function keep(ScheduleRequest $request, Dataset $dataset, KeepSchedule $keep): JsonResponse
    {
        $keep($dataset, $request->schedule(), $this->person($request));

        return response()->json($this->view->ofDataset($dataset));
    }

    /** The same times for every dataset of a migration that can be drawn. */
    public function keepAll(ScheduleRequest $request, Migration $migration, KeepSchedule $keep): JsonResponse
    {
        $migration->getConnection()->transaction(function () use ($request, $migration, $keep): void {
            foreach ($this->view->drawn($migration) as $dataset) {
                $keep($dataset, $request->schedule(), $this->person($request));
            }
        });

        return response()->json($this->view->ofMigration($migration));
    }

    /** Every dataset of a migration that can be drawn, now: each that can be begun. */
    public function drawAll(Request $request, Migration $migration, DrawDataset $draw): JsonResponse
    {
        $notDrawn = [];
        foreach ($this->view->drawn($migration) as $dataset) {
            try {
                $draw($dataset, $this->person($request));
            } catch (Conflict $problem) {
                $notDrawn[] = ['dataset' => $dataset->name, 'why' => $problem->getMessage()];
            }
        }

        return response()->json([...$this->view->ofMigration($migration), 'notDrawn' => $notDrawn], Response::HTTP_ACCEPTED);
    }

    /** Both sides now, whatever the schedule says. */
    public function draw(Request $request, Dataset $dataset, DrawDataset $draw): JsonResponse
    {
        $request->validate(['inPlace' => ['boolean']]);
        $draw($dataset, $this->person($request), inPlace: $request->boolean('inPlace'));

        return response()->json($this->view->ofDataset($dataset), Response::HTTP_ACCEPTED);
    }
}
