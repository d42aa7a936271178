<?php

declare(strict_types=1);

namespace App\Http\Controllers\Board;

use App\Http\Answers\Board;
use App\Http\Controllers\Controller;
use App\Models\Migration;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

final class BoardController extends Controller
{
    public function show(Request $request, Migration $migration, Board $board): JsonResponse
    {

        return response()->json($board($migration, $this->person($request)));
    }
}
