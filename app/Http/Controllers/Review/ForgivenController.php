<?php

declare(strict_types=1);

namespace App\Http\Controllers\Review;

use App\Http\Controllers\Controller;
use App\Http\Controllers\TakenTable;
use App\Http\Requests\Review\ForgivenRequest;
use App\Models\Answer;
use App\Models\Tally;
use App\Problems\Conflict;
use App\Queries\Review\ForgivenPages;
use App\Queries\Review\Masks;
use App\Questions\Answers;
use App\Questions\ForgivenCells;
use App\Questions\QuestionContext;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Str;
use Symfony\Component\HttpFoundation\StreamedResponse;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

/** The cells of a pattern that a rule let pass. Whoever asks first for those of a tally waits until a worker has listed them. */
final class ForgivenController extends Controller
{
    public function __construct(
        private readonly Masks $masks,
        private readonly Answers $answers,
        private readonly QuestionContext $material,
    ) {}

    public function index(ForgivenRequest $request, Tally $tally, int $number): JsonResponse
    {
        $pages = $this->pages($request, $tally, $number);
        $answer = $this->answer($tally);
        $isThere = ! $answer->isWaiting() && $answer->problem === null;

        return response()->json([
            ...$answer->progress(),
            ...$isThere
                ? $pages->page($number, $request->from(), $request->limit(), $request->text())
                : ['items' => [], 'cells' => null, 'next' => null],
        ]);
    }

    public function take(ForgivenRequest $request, Tally $tally, int $number): StreamedResponse
    {
        $pages = $this->pages($request, $tally, $number);
        $answer = $this->answer($tally);
        if ($answer->isWaiting() || $answer->problem !== null) {
            throw Conflict::because(
                'not-listed-yet',
                $answer->problem ?? 'These cells are being listed. Open them in Review, and take them away when they are there.',
            );
        }
        $asLines = $request->string('as')->toString() === 'json-lines';

        return TakenTable::sent(
            $pages->taken($tally, $number, $request->text(), $asLines),
            Str::slug($tally->dataset->name)."-tally-{$tally->number}-forgiven-{$number}",
            $asLines,
        );
    }

    private function pages(ForgivenRequest $request, Tally $tally, int $number): ForgivenPages
    {
        $pattern =
            $tally->forgiven()[$number - 1] ?? throw new NotFoundHttpException("Tally {$tally->number} let nothing pass under {$number}.");
        $mask = $this->masks->forPerson($this->person($request), $tally);
        $hidesValues = $mask->hides($pattern['source']);
        if ($request->text() !== null && $hidesValues) {
            $mask->mustNotSearch();
        }
        if ($request->text() !== null) {
            $mask->mustAllowKeys();
        }

        return new ForgivenPages(ForgivenCells::ofTally($tally)->lists($this->material), $mask, $hidesValues);
    }

    private function answer(Tally $tally): Answer
    {
        $question = ForgivenCells::ofTally($tally);
        $answer = $this->answers->to($question);
        if (! $answer->isWaiting() && $answer->problem === null && ! $question->lists($this->material)->areKept()) {
            // They were cleared up because nobody had used them for long.
            $answer->delete();
            $answer = $this->answers->to($question);
        }

        return $answer;
    }
}
