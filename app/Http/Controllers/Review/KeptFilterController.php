<?php

declare(strict_types=1);

namespace App\Http\Controllers\Review;

use App\Http\Controllers\Controller;
use App\Models\Dataset;
use App\Models\KeptFilter;
use App\Problems\Conflict;
use App\Queries\Review\Masks;
use App\Rulings\FindingSet\Filter;
use Illuminate\Database\UniqueConstraintViolationException;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** Filters of findings that were given a name. */
final class KeptFilterController extends Controller
{
    /** A filter that names values is not offered to whom they are masked for. */
    public function index(Request $request, Dataset $dataset, Masks $masks): JsonResponse
    {
        $kept = KeptFilter::query()->with('user')->where('dataset_id', $dataset->id)->orderBy('name')->get();
        $mask = $masks->ofDataset($dataset, $this->person($request));
        $kept = $kept->reject(static fn(KeptFilter $one): bool => $mask->terms($one->filter) !== $one->filter);

        return response()->json(['items' => array_values($kept->map($this->view(...))->all())]);
    }

    public function store(Request $request, Dataset $dataset): JsonResponse
    {
        $request->validate(['name' => ['required', 'string', 'max:80'], 'filter' => ['present', 'array']]);
        // A value may be blank or a space: it is read as it was sent.
        $sent = json_decode($request->getContent(), true, 8);
        $filter = Filter::from(is_array($sent) && is_array($sent['filter'] ?? null) ? $sent['filter'] : []);
        try {
            $kept = KeptFilter::query()->create([
                'dataset_id' => $dataset->id,
                'name' => $request->string('name')->trim()->toString(),
                'filter' => $filter->toArray(),
                'user_id' => $this->person($request)->id,
            ]);
        } catch (UniqueConstraintViolationException) {
            throw Conflict::because('name-taken', 'A filter of this name is kept already. Choose another name.');
        }

        return response()->json($this->view($kept), Response::HTTP_CREATED);
    }

    public function destroy(KeptFilter $filter): Response
    {
        $filter->delete();

        return response()->noContent();
    }

    /** @return array{id: int, name: string, filter: array<string, mixed>, by: string} */
    private function view(KeptFilter $kept): array
    {
        return ['id' => $kept->id, 'name' => $kept->name, 'filter' => $kept->filter, 'by' => $kept->user->name];
    }
}
