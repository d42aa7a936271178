<?php

declare(strict_types=1);

namespace App\Http\Controllers\Match;

use App\Http\Controllers\Controller;
use App\Models\Dataset;
use App\Queries\Match\Advice;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;

final class AdviceController extends Controller
{
    public function show(Dataset $dataset, Advice $advice): JsonResponse
    {
        $this->allow('view', $dataset->migration);

        return response()->json($advice($dataset));
    }

    public function cancel(Dataset $dataset, Advice $advice): Response
    {
        $this->allow('work', $dataset->migration);
        $advice->cancel($dataset);

        return response()->noContent();
    }

    public function again(Dataset $dataset, Advice $advice): JsonResponse
    {
        $this->allow('work', $dataset->migration);
        $advice->again($dataset);

        return response()->json($advice($dataset));
    }
}
