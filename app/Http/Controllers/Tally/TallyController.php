<?php

declare(strict_types=1);

namespace App\Http\Controllers\Tally;

use App\Actions\Tally\PackTallyFolder;
use App\Http\Controllers\Controller;
use App\Http\Requests\Tally\NameTallyRequest;
use App\Http\Resources\TallyResource;
use App\Models\Dataset;
use App\Models\Tally;
use App\Models\TallyName;
use App\Problems\Conflict;
use App\Queries\Review\Mask;
use App\Queries\Review\Masks;
use App\Queries\Tally\RulingsLeftBehind;
use App\Questions\Answers;
use App\Questions\TallyDiff;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Str;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

final class TallyController extends Controller
{
    private const PAGE = 200;

    public function index(Request $request, Dataset $dataset, Masks $masks): JsonResponse
    {
        $tallies = $dataset
            ->tallies()
            ->with(['standingCounts', 'carryOver.from', 'name', 'totals', 'purged.purge.user'])
            ->orderByDesc('number')
            ->limit(100)
            ->get();
        $mask = $masks->ofDataset($dataset, $this->person($request));

        return response()->json([
            'items' => $tallies
                ->map(
                    static fn(Tally $tally): array => ['warnings' => $mask->warnings($tally->summary['warnings'])] +
                        TallyResource::make($tally)->resolve($request),
                )
                ->all(),
        ]);
    }

    /** What became of the findings of an earlier tally in this one. */
    public function compare(Request $request, Tally $tally, Tally $earlier, Answers $answers, Masks $masks): JsonResponse
    {
        if ($tally->dataset_id !== $earlier->dataset_id || $earlier->number >= $tally->number) {
            throw Conflict::because('not-comparable', 'A tally is compared with an earlier one of the same dataset.');
        }
        $answer = $answers->to(new TallyDiff($earlier->id, $tally->id));

        return response()->json([
            ...$answer->progress(),
            'earlier' => $earlier->number,
            'later' => $tally->number,
            'comparison' => $this->masked($answer->content, $masks->forPerson($this->person($request), $tally)),
        ]);
    }

    /** What it was made of, to make it again elsewhere. */
    public function folder(Tally $tally, PackTallyFolder $pack): BinaryFileResponse
    {
        $name = Str::slug("{$tally->dataset->name} tally {$tally->number}") ?: "tally-{$tally->number}";

        return response()->download($pack($tally, $name), "{$name}.zip", ['Content-Type' => 'application/zip'])->deleteFileAfterSend();
    }

    /** Rulings of the tally before that stand on none of its findings. */
    public function leftBehind(Request $request, Tally $tally, RulingsLeftBehind $rulings, Masks $masks): JsonResponse
    {
        $from = max(1, $request->integer('from', 1));
        // What they stood on is of the tally before, and so are its keys.
        $items = $rulings->page($tally, $masks->forPerson($this->person($request), $tally->carryOver->from ?? $tally), $from, self::PAGE);

        return response()->json(['items' => $items, 'next' => count($items) === self::PAGE ? $from + self::PAGE : null]);
    }

    /** What it is called from now on. */
    public function name(NameTallyRequest $request, Tally $tally): Response
    {
        TallyName::query()->create([
            'tally_id' => $tally->id,
            'name' => $request->name(),
            'remark' => $request->remark(),
            'user_id' => $this->person($request)->id,
        ]);

        return response()->noContent();
    }

    public function show(Request $request, Tally $tally, Masks $masks): JsonResponse
    {
        $tally->load(['standingCounts', 'patterns', 'carryOver.from', 'name', 'totals', 'purged.purge.user']);

        $person = $this->person($request);

        return response()->json(
            TallyResource::make($tally)
                ->withPatterns($masks->forPerson($person, $tally))
                ->resolve($request),
        );
    }

    /**
     * @param  array<array-key, mixed>|null  $comparison
     * @return array<array-key, mixed>|null
     */
    private function masked(?array $comparison, Mask $mask): ?array
    {
        if ($comparison === null || ! $mask->hidesAnything()) {
            return $comparison;
        }
        $examples = is_array($comparison['examples'] ?? null) ? $comparison['examples'] : [];

        $shown = array_filter(
            $examples,
            static fn(mixed $example): bool => is_array($example) &&
                is_string($example['column'] ?? null) &&
                ! $mask->hides($example['column']),
        );

        return [
            'examples' => array_values(
                array_map(
                    static fn(array $example): array => is_string($example['key'] ?? null)
                        ? ['key' => $mask->key($example['key'])] + $example
                        : $example,
                    $shown,
                ),
            ),
        ] + $comparison;
    }
}
