<?php

declare(strict_types=1);

namespace App\Http\Controllers\Match;

use App\Actions\Match\DraftOf;
use App\Actions\Match\JoinDrafts;
use App\Actions\Match\KeepPlanDefaults;
use App\Actions\Match\SaveDraft;
use App\Http\Controllers\Controller;
use App\Http\Requests\Match\JoinDraftRequest;
use App\Http\Requests\Match\SaveDraftRequest;
use App\Models\Dataset;
use App\Queries\Match\PlanView;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

final class PlanController extends Controller
{
    public function __construct(private readonly PlanView $view) {}

    public function show(Request $request, Dataset $dataset, DraftOf $draftOf): JsonResponse
    {

        return response()->json(($this->view)($dataset, $draftOf($dataset), $this->person($request)));
    }

    /** Values that conditions of steps ask for. They belong to the dataset, are recorded with each tally, and make no new plan. */
    public function parameters(Request $request, Dataset $dataset, DraftOf $draftOf): JsonResponse
    {
        /** @var array{parameters: array<string, string|null>} $given */
        $given = $request->validate(['parameters' => ['present', 'array', 'max:50'], 'parameters.*' => ['nullable', 'string', 'max:1000']]);
        $dataset->update([
            'parameters' => array_filter(array_map(strval(...), $given['parameters']), static fn(string $value): bool => $value !== ''),
        ]);

        return response()->json(($this->view)($dataset, $draftOf($dataset), $this->person($request)));
    }

    /** What two people made of the same draft, joined; nothing is saved by it. */
    public function join(JoinDraftRequest $request, Dataset $dataset, JoinDrafts $joinDrafts): JsonResponse
    {

        return response()->json(
            $joinDrafts(
                $dataset,
                $request->base(),
                $request->mine(),
                $request->settled('mine'),
                $request->settled('theirs'),
                $this->person($request),
            ),
        );
    }

    /** New datasets of the migration begin with what this draft says of both sides. */
    public function keepDefaults(Request $request, Dataset $dataset, KeepPlanDefaults $keep, DraftOf $draftOf): JsonResponse
    {
        $keep($dataset);

        return response()->json(($this->view)($dataset->refresh(), $draftOf($dataset), $this->person($request)));
    }

    public function forgetDefaults(Request $request, Dataset $dataset, DraftOf $draftOf): JsonResponse
    {
        $dataset->migration->update(['plan_defaults' => null]);

        return response()->json(($this->view)($dataset->refresh(), $draftOf($dataset), $this->person($request)));
    }

    public function update(SaveDraftRequest $request, Dataset $dataset, SaveDraft $saveDraft): JsonResponse
    {

        return response()->json(
            ($this->view)(
                $dataset,
                $saveDraft($dataset, $request->document(), $this->person($request), $request->seen()),
                $this->person($request),
            ),
        );
    }
}
