<?php

declare(strict_types=1);

namespace App\Http\Controllers\TakeAway;

use App\Adapters\Storage\WorkbookFiles;
use App\Http\Controllers\Controller;
use App\Http\Resources\WorkbookResource;
use App\Models\Workbook;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

/** The workbooks that a person asked for: nobody else learns of them. */
final class WorkbookController extends Controller
{
    public function __construct(private readonly WorkbookFiles $files) {}

    public function index(Request $request): JsonResponse
    {
        return response()->json([
            'items' => WorkbookResource::collection(
                Workbook::query()->where('user_id', $this->person($request)->id)->orderBy('created_at')->get(),
            )->resolve($request),
        ]);
    }

    public function file(Request $request, Workbook $workbook): BinaryFileResponse
    {
        $path = $this->files->path($this->ofPerson($request, $workbook));

        return $workbook->state === 'written' && is_file($path)
            ? response()->download($path, $workbook->name)
            : throw new ModelNotFoundException;
    }

    /** Given up while it is written, or no longer wanted. */
    public function destroy(Request $request, Workbook $workbook): Response
    {
        $this->files->remove($this->ofPerson($request, $workbook));

        return response()->noContent();
    }

    private function ofPerson(Request $request, Workbook $workbook): Workbook
    {
        return $workbook->user_id === $this->person($request)->id ? $workbook : throw new ModelNotFoundException;
    }
}
