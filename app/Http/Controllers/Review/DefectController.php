<?php

declare(strict_types=1);

namespace App\Http\Controllers\Review;

use App\Actions\Review\MakeCorrections;
use App\Http\Controllers\Controller;
use App\Http\Controllers\TakenTable;
use App\Http\Requests\Review\DefectEntryRequest;
use App\Http\Requests\Review\DefectsRequest;
use App\Http\Resources\WorkbookResource;
use App\Jobs\WriteCorrections;
use App\Models\Answer;
use App\Models\CorrectionSet;
use App\Models\Dataset;
use App\Models\DefectEntry;
use App\Models\Ruling;
use App\Models\Tally;
use App\Models\Workbook;
use App\Problems\Conflict;
use App\Queries\Review\CorrectionChecks;
use App\Queries\Review\Defects;
use App\Queries\Review\FindingsOfAct;
use App\Queries\Review\Masks;
use App\Queries\TakeAway\CorrectionTable;
use App\Queries\TakeAway\DefectTable;
use App\Questions\Answers;
use App\Questions\DefectHistory;
use Illuminate\Database\Connection;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Str;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** Defects with who mends them, and the corrections that are made of them. */
final class DefectController extends Controller
{
    private const PAGE = 100;

    public function __construct(private readonly Answers $answers, private readonly Defects $defects, private readonly Masks $masks) {}

    public function index(DefectsRequest $request, Dataset $dataset): JsonResponse
    {
        $answer = $this->histories($dataset);
        $mask = $this->masks->ofDataset($dataset, $this->person($request));
        $all = $answer === null || $answer->isWaiting() ? [] : $this->defects->of($answer, $mask, $request->filter());
        $from = $request->from();

        return response()->json([
            ...$answer?->progress() ?? ['isWaiting' => false, 'done' => 0, 'total' => 0, 'problem' => null],
            'items' => array_slice($all, $from - 1, self::PAGE),
            'next' => count($all) >= $from + self::PAGE ? $from + self::PAGE : null,
            'defects' => count($all),
            'gone' => count(array_filter($all, static fn(array $defect): bool => $defect['open'] === 0)),
        ]);
    }

    /** Each finding that was ruled a defect, with its identity and whether it is still there. */
    public function takeDefects(Request $request, Dataset $dataset, FindingsOfAct $findings, Connection $database): StreamedResponse
    {
        $mask = $this->masks->ofDataset($dataset, $this->person($request));

        return TakenTable::as(
            $request,
            new DefectTable($this->newest($dataset), $mask, $findings, $database),
            Str::slug($dataset->name).'-defects',
        );
    }

    /** Who mends it, and until when. */
    public function assign(DefectEntryRequest $request, Ruling $ruling): Response
    {
        DefectEntry::query()->create([
            'ruling_id' => $ruling->id,
            'mends' => $request->mends(),
            'due' => $request->due(),
            'user_id' => $this->person($request)->id,
        ]);

        return response()->noContent();
    }

    /** Of chosen defects, or of all with some words, ticket or person who mends. */
    public function correct(
        DefectsRequest $request,
        Dataset $dataset,
        MakeCorrections $makeCorrections,
        CorrectionChecks $checks,
    ): JsonResponse {
        $set = $makeCorrections($dataset, $request->acts() ?? $this->meant($request, $dataset), $this->person($request));

        return response()->json($this->told($set, $dataset, $checks), Response::HTTP_CREATED);
    }

    public function corrections(Dataset $dataset, CorrectionChecks $checks): JsonResponse
    {
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
        $lines = (new CorrectionTable($set, $this->newest($dataset), $checks))->objects($request->integer('after'), self::PAGE);

        return response()->json(['items' => $lines, 'next' => count($lines) === self::PAGE ? $lines[self::PAGE - 1]['number'] : null]);
    }

    public function take(Request $request, Dataset $dataset, CorrectionSet $set, CorrectionChecks $checks): StreamedResponse
    {

        return TakenTable::as(
            $request,
            new CorrectionTable($set, $this->newest($dataset), $checks),
            $this->fileName($dataset, $set),
        );
    }

    public function askForWorkbook(Request $request, Dataset $dataset, CorrectionSet $set): JsonResponse
    {
        $person = $this->person($request);
        $workbook = Workbook::askFor($person, $dataset->id, $this->fileName($dataset, $set).'.xlsx');
        WriteCorrections::dispatch($workbook->id, $set->id, $person->id);

        return response()->json(WorkbookResource::make($workbook)->resolve($request), Response::HTTP_ACCEPTED);
    }

    private function fileName(Dataset $dataset, CorrectionSet $set): string
    {
        return Str::slug($dataset->name)."-corrections-{$set->number}";
    }

    private function histories(Dataset $dataset): ?Answer
    {
        $question = DefectHistory::of($dataset);

        return $question === null ? null : $this->answers->to($question);
    }

    /** @return list<int> acts of the defects that a request means, and of which something is still there */
    private function meant(DefectsRequest $request, Dataset $dataset): array
    {
        $answer = $this->histories($dataset);
        if ($answer?->isWaiting() === true) {
            throw Conflict::because('defects-are-looked-for', 'The defects are being looked for in each tally. Try again in a moment.');
        }
        $mask = $this->masks->ofDataset($dataset, $this->person($request));
        $defects = $answer === null ? [] : $this->defects->of($answer, $mask, $request->filter());

        return array_column(array_filter($defects, static fn(array $defect): bool => $defect['open'] > 0), 'act');
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
