<?php

declare(strict_types=1);

namespace App\Http\Controllers\Match;

use App\Actions\Match\DraftOf;
use App\Actions\Match\ImportPlan;
use App\Actions\Match\KeepStartingPlan;
use App\Http\Controllers\Controller;
use App\Models\Dataset;
use App\Models\PlanVersion;
use App\Models\StartingPlan;
use App\Queries\Match\PlanVersions;
use App\Queries\Match\PlanView;
use App\Queries\Review\Masks;
use App\Queries\Sources\SourcesOfPlan;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use NineTally\Core\Plan\CanonicalJson;

/** Versions of a plan and plans to start from, and how they become the draft again. */
final class PlanVersionController extends Controller
{
    public function index(Request $request, Dataset $dataset, PlanVersions $versions): JsonResponse
    {
        $startingPlans = StartingPlan::query()->where('migration_id', $dataset->migration_id)->with('user')->orderBy('name')->get();

        return response()->json([
            'versions' => $versions($dataset, $this->person($request)),
            'startingPlans' => $startingPlans
                ->map(
                    static fn(StartingPlan $startingPlan): array => [
                        'id' => $startingPlan->id,
                        'name' => $startingPlan->name,
                        'by' => $startingPlan->user->name,
                    ],
                )
                ->values(),
        ]);
    }

    public function compare(Request $request, Dataset $dataset, int $one, int $other, PlanVersions $versions): JsonResponse
    {

        return response()->json([
            'changes' => $versions->compare(
                $dataset,
                $this->version($dataset, $one),
                $this->version($dataset, $other),
                $this->person($request),
            ),
        ]);
    }

    /** A version, or the draft, as the file that another dataset can import. */
    public function export(Request $request, Dataset $dataset, int $number, Masks $masks, SourcesOfPlan $sources): Response
    {
        // Where its rows are drawn from is said where somebody asks for it: else the file is the version, byte for byte.
        $drawn = $request->boolean('sources') ? $sources->of($dataset) : [];
        $name = preg_replace('/[^a-z0-9]+/', '-', mb_strtolower($dataset->name));

        return response(
            CanonicalJson::of(
                $masks->plan($dataset, $this->version($dataset, $number)->plan()->toArray(), $this->person($request)) +
                    ($drawn === [] ? [] : ['drawn' => $drawn]),
            ),
            headers: [
                'Content-Type' => 'application/json',
                'Content-Disposition' => "attachment; filename=\"{$name}-plan-{$number}.json\"",
            ],
        );
    }

    /** Makes a file, a plan to start from or an earlier version the draft. */
    public function import(Request $request, Dataset $dataset, ImportPlan $importPlan, DraftOf $draftOf, PlanView $view): JsonResponse
    {
        $request->validate([
            'document' => ['string', 'max:20000000', 'required_without_all:startingPlan,version'],
            'startingPlan' => ['integer'],
            'version' => ['integer', 'min:1'],
        ]);
        $json = match (true) {
            $request->filled('startingPlan') => StartingPlan::query()
                ->where('migration_id', $dataset->migration_id)
                ->findOrFail($request->integer('startingPlan'))->document,
            $request->filled('version') => $this->version($dataset, $request->integer('version'))->document,
            default => $request->string('document')->toString(),
        };
        $importPlan($dataset, $json, $this->person($request));

        return response()->json($view($dataset, $draftOf($dataset), $this->person($request)));
    }

    public function keep(Request $request, Dataset $dataset, KeepStartingPlan $keepStartingPlan): JsonResponse
    {
        $request->validate(['name' => ['required', 'string', 'max:200']]);
        $startingPlan = $keepStartingPlan($dataset, $request->string('name')->trim()->toString(), $this->person($request));

        return response()->json(
            ['id' => $startingPlan->id, 'name' => $startingPlan->name, 'by' => $startingPlan->user->name],
            Response::HTTP_CREATED,
        );
    }

    private function version(Dataset $dataset, int $number): PlanVersion
    {
        return $dataset->planVersions()->where('number', $number)->firstOrFail();
    }
}
