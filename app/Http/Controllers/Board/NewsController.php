<?php

declare(strict_types=1);

namespace App\Http\Controllers\Board;

use App\Http\Controllers\Controller;
use App\Models\Dataset;
use App\Queries\Board\News;
use Illuminate\Http\JsonResponse;

/** What pages ask every few seconds: whether somebody else has done something. */
final class NewsController extends Controller
{
    public function __invoke(Dataset $dataset, News $news): JsonResponse
    {

        return response()->json($news->of($dataset));
    }
}
