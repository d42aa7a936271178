<?php

declare(strict_types=1);

namespace App\Http\Controllers\Prove;

use App\Actions\Prove\DrawEyeCheck;
use App\Actions\Prove\GiveEyeCheck;
use App\Actions\Review\FindAgreeingRow;
use App\Http\Controllers\Controller;
use App\Http\Resources\RecordResource;
use App\Models\Answer;
use App\Models\EyeCheck;
use App\Models\EyeVerdict;
use App\Models\Tally;
use App\Models\User;
use App\Queries\Prove\EyeChecks;
use App\Queries\Review\DeliveredRecord;
use App\Queries\Review\Masks;
use App\Questions\Answers;
use App\Questions\SampleOfAgreed;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Validation\Rule;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\Side;

/** Rows of which both sides have the same, looked at by people: drawn, given to somebody else, and what was said of each. */
final class EyeCheckController extends Controller
{
    public function __construct(
        private readonly EyeChecks $checks,
        private readonly Answers $answers,
        private readonly Masks $masks,
    ) {}

    public function index(Tally $tally): JsonResponse
    {
        return response()->json([
            'populations' => $this->checks->populations($tally),
            'notDrawn' => array_sum(EyeChecks::withoutOneKey($tally)),
            'offers' => $this->checks->offers($tally),
            'items' => $this->checks->all($tally),
        ]);
    }

    public function store(Request $request, Tally $tally, DrawEyeCheck $draw): JsonResponse
    {
        $request->validate([
            'confidence' => ['required', Rule::in(EyeChecks::CONFIDENCES)],
            'share' => ['required', Rule::in(EyeChecks::SHARES)],
        ]);
        $check = $draw($tally, $request->float('confidence'), $request->float('share'), $this->person($request));

        return response()->json($this->checks->summary($check->load(['user', 'verdicts', 'people.user'])), Response::HTTP_CREATED);
    }

    public function show(Request $request, EyeCheck $eyeCheck): JsonResponse
    {
        $check = $this->whole($eyeCheck);
        $answer = $this->answers->to(SampleOfAgreed::of($check));
        $person = $this->person($request);
        $mask = $this->masks->forPerson($person, $check->tally);

        return response()->json([
            ...$answer->progress(),
            'check' => $this->checks->summary($check),
            'hidesKeys' => $mask->hidesKeys(),
            'rows' => $this->checks->rows($check, self::sample($answer), $person, $mask),
        ]);
    }

    /** A row of the sample: the whole record of both sides as it was prepared, and where and how it was delivered. */
    public function row(
        Request $request,
        EyeCheck $eyeCheck,
        int $place,
        FindAgreeingRow $rows,
        DeliveredRecord $delivered,
    ): JsonResponse {
        $check = $this->whole($eyeCheck);
        $person = $this->person($request);
        $mask = $this->masks->forPerson($person, $check->tally);
        $mask->mustAllowKeys();
        [$answer, $record] = $rows->find($check->tally, $mask, $this->rowAt($check, $place)['key']);
        $before = [];
        foreach (Side::cases() as $side) {
            $found = $record === null ? null : $delivered->of($check->tally, $side, $record->row->finding->placeOn($side));
            $hidden = $this->masks->ofSide($check->tally->dataset, $side, $person);
            $before[$side->value] = $found === null || $found['cells'] === null ? null : [
                'file' => $found['file'],
                'line' => $found['line'],
                'columns' => $found['columns'],
                'cells' => $hidden->cells($found['columns'], $found['cells']),
            ];
        }

        return response()->json([
            ...$answer->progress(),
            'record' => $record === null ? null : RecordResource::make($record)->resolve($request) + ['rulings' => []],
            'delivered' => $before,
        ]);
    }

    public function say(Request $request, EyeCheck $eyeCheck): Response
    {
        $check = $this->whole($eyeCheck);
        $request->validate([
            'place' => ['required', 'integer', 'min:1', 'max:1000000'],
            'verdict' => ['required', Rule::in(EyeVerdict::VERDICTS)],
            'remark' => ['nullable', 'string', 'max:2000', 'required_if:verdict,wrong'],
        ], ['remark.required_if' => 'Say what is wrong with the row.']);
        $row = $this->rowAt($check, $request->integer('place'));
        $check->verdicts()->create([
            'place' => $request->integer('place'),
            'by_rule' => $row['byRule'],
            'key' => KeyTuple::of($row['key'])->asCsv(),
            'verdict' => $request->string('verdict')->toString(),
            'remark' => $request->string('remark')->trim()->toString(),
            'user_id' => $this->person($request)->id,
        ]);

        return response()->noContent();
    }

    /** The same sample for a second pair of eyes. */
    public function give(Request $request, EyeCheck $eyeCheck, GiveEyeCheck $give): JsonResponse
    {
        $request->validate(['person' => ['required', 'integer']]);
        $give($eyeCheck, User::query()->findOrFail($request->integer('person')), $this->person($request));

        return response()->json($this->checks->summary($this->whole($eyeCheck->refresh())));
    }

    private function whole(EyeCheck $check): EyeCheck
    {
        return $check->load(['tally.planVersion', 'tally.dataset', 'user', 'verdicts.user', 'people.user']);
    }

    /** @return array{byRule: bool, key: list<string>, ...} */
    private function rowAt(EyeCheck $check, int $place): array
    {
        return self::sample($this->answers->to(SampleOfAgreed::of($check)))[$place - 1] ?? abort(Response::HTTP_NOT_FOUND);
    }

    /** @return list<array{byRule: bool, key: list<string>, hash: string}> */
    private static function sample(Answer $answer): array
    {
        /** @var list<array{byRule: bool, key: list<string>, hash: string}> $rows */
        $rows = $answer->content['rows'] ?? [];

        return $rows;
    }
}
