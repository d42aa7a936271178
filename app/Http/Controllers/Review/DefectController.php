<?php

declare(strict_types=1);

namespace App\Http\Controllers\Review;

use App\Actions\Review\MakeCorrections;
use App\Http\Controllers\Controller;
use App\Http\Requests\Review\DefectEntryRequest;
use App\Models\CorrectionSet;
use App\Models\Dataset;
use App\Models\DefectEntry;
use App\Models\Ruling;
use App\Models\Tally;
use App\Problems\Conflict;
use App\Queries\Review\CorrectionChecks;
use App\Queries\Review\Defects;
use App\Queries\Review\Masks;
use App\Queries\TakeAway\CorrectionTable;
use App\Questions\Answers;
use App\Questions\DefectHistory;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Str;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** Defects with who mends them, and the corrections that are made of them. */
final class DefectController extends Controller
{
    private const PAGE = 100;

    public function index(Request $request, Dataset $dataset, Answers $answers, Defects $defects, Masks $masks): JsonResponse
    {
        $this->allow('view', $dataset->migration);
        $question = DefectHistory::of($dataset);
        $answer = $question === null ? null : $answers->to($question);

        return response()->json([
            ...$answer?->progress() ?? ['isWaiting' => false, 'done' => 0, 'total' => 0, 'problem' => null],
            'items' =>
                $answer === null || $answer->isWaiting() ? [] : $defects->of($answer, $masks->ofDataset($dataset, $this->person($request))),
        ]);
    }

    /** Who mends it, and until when. */
    public function assign(DefectEntryRequest $request, Ruling $ruling): Response
    {
        $this->allow('rule', $ruling->tally->migration);
        DefectEntry::query()->create([
            'ruling_id' => $ruling->id,
            'mends' => $request->mends(),
            'due' => $request->due(),
            'user_id' => $this->person($request)->id,
        ]);

        return response()->noContent();
    }

    public function correct(Request $request, Dataset $dataset, MakeCorrections $makeCorrections, CorrectionChecks $checks): JsonResponse
    {
        $this->allow('rule', $dataset->migration);
        $request->validate(['acts' => ['required', 'array', 'min:1', 'max:500'], 'acts.*' => ['integer']]);
        $acts = array_values(array_map(static fn(mixed $act): int => is_int($act) ? $act : 0, (array) $request->input('acts')));
        $set = $makeCorrections($dataset, $acts, $this->person($request));

        return response()->json($this->told($set, $dataset, $checks), Response::HTTP_CREATED);
    }

    public function corrections(Dataset $dataset, CorrectionChecks $checks): JsonResponse
    {
        $this->allow('view', $dataset->migration);
        $sets = CorrectionSet::query()
            ->where('dataset_id', $dataset->id)
            ->with(['tally.planVersion', 'user'])
            ->orderByDesc('number')
            ->limit(50)
            ->get();

        return response()->json(['items' => $sets->map(fn(CorrectionSet $set): array => $this->told($set, $dataset, $checks))->all()]);
    }

    /** The lines of a set, with what the newest tally says of each. */
    public function lines(Request $request, Dataset $dataset, CorrectionSet $set, CorrectionChecks $checks): JsonResponse
    {
        $this->allow('view', $dataset->migration);
        $lines = (new CorrectionTable($set, $this->newest($dataset), $checks))->objects($request->integer('after'), self::PAGE);

        return response()->json(['items' => $lines, 'next' => count($lines) === self::PAGE ? $lines[self::PAGE - 1]['number'] : null]);
    }

    public function take(Request $request, Dataset $dataset, CorrectionSet $set, CorrectionChecks $checks): StreamedResponse
    {
        $this->allow('view', $dataset->migration);
        $asLines = $request->string('as')->toString() === 'json-lines';
        $table = new CorrectionTable($set, $this->newest($dataset), $checks);

        return response()->streamDownload(
            static function () use ($table, $asLines): void {
                foreach ($asLines ? $table->jsonLines() : $table->csv() as $line) {
                    echo $line;
                }
            },
            Str::slug($dataset->name)."-corrections-{$set->number}".($asLines ? '.jsonl' : '.csv'),
            ['Content-Type' => $asLines ? 'application/jsonl' : 'text/csv; charset=utf-8'],
        );
    }

    /** @return array<string, mixed> */
    private function told(CorrectionSet $set, Dataset $dataset, CorrectionChecks $checks): array
    {
        $newest = $this->newest($dataset);

        return [
            'id' => $set->id,
            'number' => $set->number,
            'tally' => $set->tally->number,
            'checkedBy' => $newest->id === $set->tally_id ? null : $newest->number,
            'lines' => $set->lines,
            'by' => $set->user->name,
            'at' => $set->created_at->toIso8601ZuluString(),
            ...$checks->sums($set, $newest),
        ];
    }

    private function newest(Dataset $dataset): Tally
    {
        return $dataset->latestTally()?->load('planVersion') ?? throw Conflict::because('no-tally', 'There is no tally yet.');
    }
}
