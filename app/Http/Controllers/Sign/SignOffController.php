<?php

declare(strict_types=1);

namespace App\Http\Controllers\Sign;

use App\Actions\Sign\EndSignOff;
use App\Actions\Sign\SayInReport;
use App\Actions\Sign\SignTallies;
use App\Actions\Sign\WaiveLimit;
use App\Http\Answers\SignOffAnswer;
use App\Http\Controllers\Controller;
use App\Http\Requests\Sign\EndRequest;
use App\Http\Requests\Sign\SignRequest;
use App\Http\Requests\Sign\WaiveRequest;
use App\Models\Migration;
use App\Models\ReportText;
use App\Models\Signature;
use App\Models\SignedState;
use App\Models\Tally;
use App\Queries\Sign\SignOffFile;
use App\Signing\HeldLimits;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Str;
use Illuminate\Validation\Rule;

/** The limits of a tally, and the signatures on it. */
final class SignOffController extends Controller
{
    public function __construct(private readonly SignOffAnswer $answer) {}

    public function show(Request $request, Tally $tally): JsonResponse
    {
        return response()->json($this->answer->of($this->whole($tally), $this->person($request)));
    }

    /** Several tallies at once, one sentence each: all of them, or none. */
    public function sign(SignRequest $request, Migration $migration, SignTallies $sign): JsonResponse
    {
        $signatures = $sign($migration, $request->seen(), $this->person($request), $request->password(), $request->code());

        return response()->json(['items' => array_map(SignOffAnswer::signature(...), $signatures)], Response::HTTP_CREATED);
    }

    public function end(EndRequest $request, Tally $tally, EndSignOff $end): JsonResponse
    {
        $end($tally, $request->act(), $request->reason(), $this->person($request));

        return response()->json($this->answer->of($this->whole($tally->refresh()), $this->person($request)));
    }

    public function waive(WaiveRequest $request, Tally $tally, WaiveLimit $waive): JsonResponse
    {
        $person = $this->person($request);
        $request->isLifted()
            ? $waive->lift($tally, $request->limit(), $request->reason(), $person)
            : $waive($tally, $request->limit(), $request->reason(), $request->endsOn(), $request->ticket(), $person);

        return response()->json($this->answer->of($this->whole($tally->refresh()), $person));
    }

    public function say(Request $request, Tally $tally, SayInReport $say): JsonResponse
    {
        $request->validate([
            'place' => ['required', Rule::in(ReportText::PLACES)],
            'text' => ['present', 'nullable', 'string', 'max:5000'],
        ]);
        $say($tally, $request->string('place')->toString(), $request->string('text')->trim()->toString(), $this->person($request));

        return response()->json($this->answer->of($this->whole($tally->refresh()), $this->person($request)));
    }

    /** What was signed, byte for byte: its SHA-256 is the digest of the signature. */
    public function state(Tally $tally, Signature $signature): Response
    {
        abort_if($signature->tally_id !== $tally->id || $signature->digest === null, Response::HTTP_NOT_FOUND);
        $state = SignedState::query()->findOrFail($signature->digest);

        return response($state->content, headers: [
            'Content-Type' => 'application/json',
            'Content-Disposition' => "attachment; filename=\"signed-{$signature->digest}.json\"",
        ]);
    }

    /** What was signed and by whom, as a file: the same bytes whenever it is taken. */
    public function take(Request $request, Tally $tally): Response
    {
        $request->validate(['as' => ['required', 'in:json,csv']]);
        $file = SignOffFile::of($tally);
        $as = $request->string('as')->toString();

        return response($as === 'json' ? $file->json() : $file->csv(), headers: [
            'Content-Type' => $as === 'json' ? 'application/json' : 'text/csv; charset=utf-8',
            'Content-Disposition' => sprintf(
                'attachment; filename="%s-tally-%d-sign-off.%s"',
                Str::slug($tally->dataset->name),
                $tally->number,
                $as,
            ),
        ]);
    }

    private function whole(Tally $tally): Tally
    {
        return $tally->load(HeldLimits::RELATIONS);
    }
}
