<?php

declare(strict_types=1);

namespace App\Http\Controllers\Board;

use App\Http\Answers\DatasetStatus;
use App\Http\Controllers\Controller;
use App\Http\Requests\Board\AddDatasetRequest;
use App\Http\Resources\DatasetResource;
use App\Models\Dataset;
use App\Models\Migration;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

final class DatasetController extends Controller
{
    public function store(AddDatasetRequest $request, Migration $migration): DatasetResource
    {
        return DatasetResource::make($migration->datasets()->create(['name' => $request->name()]));
    }

    public function show(Request $request, Dataset $dataset, DatasetStatus $course): JsonResponse
    {

        return response()->json($course($dataset, $this->person($request)));
    }
}
