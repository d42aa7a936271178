<?php

declare(strict_types=1);

namespace App\Http\Controllers\Sources;

use App\Actions\Sources\DrawWantedSources;
use App\Actions\Sources\TryWantedSources;
use App\Adapters\Sources\Sources;
use App\Http\Controllers\Controller;
use App\Models\Dataset;
use App\Models\WantedSources;
use App\Queries\Sources\ScheduleView;
use App\Queries\Sources\WantedView;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Validation\Rule;

/** What an imported plan asks for before its rows can be drawn here. */
final class WantedSourcesController extends Controller
{
    public function show(Dataset $dataset, WantedView $view): JsonResponse
    {
        return response()->json(['wanted' => $view->of($dataset)]);
    }

    /** A few rows of each side, and whether the pairs of the plan are there. */
    public function try(Request $request, Dataset $dataset, TryWantedSources $try, Sources $sources): JsonResponse
    {
        ['sides' => $sides, 'pairs' => $pairs] = $try($dataset, $this->wanted($dataset), $this->chosen($request, $dataset, $sources));

        return response()->json(['sides' => (object) $sides, 'pairs' => $pairs]);
    }

    public function draw(
        Request $request,
        Dataset $dataset,
        DrawWantedSources $draw,
        Sources $sources,
        ScheduleView $view,
    ): JsonResponse {
        $draw($dataset, $this->wanted($dataset), $this->chosen($request, $dataset, $sources), $this->person($request));

        return response()->json($view->ofDataset($dataset), Response::HTTP_ACCEPTED);
    }

    /** Not wanted any more: the plan stays. */
    public function destroy(Dataset $dataset): Response
    {
        WantedSources::query()->whereKey($dataset->id)->delete();

        return response()->noContent();
    }

    private function wanted(Dataset $dataset): WantedSources
    {
        return WantedSources::query()->findOrFail($dataset->id);
    }

    /** @return array<string, string> connections here, by side and name in the plan */
    private function chosen(Request $request, Dataset $dataset, Sources $sources): array
    {
        /** @var array{chosen?: list<array{side: string, name: string, by: string}>} $asked */
        $asked = $request->validate([
            'chosen' => ['array', 'max:1000'],
            'chosen.*.side' => ['required', 'in:source,target'],
            'chosen.*.name' => ['required', 'string'],
            'chosen.*.by' => ['required', 'string', Rule::in($sources->names($dataset->migration))],
        ]);
        $chosen = [];
        foreach ($asked['chosen'] ?? [] as ['side' => $side, 'name' => $name, 'by' => $by]) {
            $chosen["{$side} {$name}"] = $by;
        }

        return $chosen;
    }
}
