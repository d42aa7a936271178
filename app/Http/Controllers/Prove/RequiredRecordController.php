<?php

declare(strict_types=1);

namespace App\Http\Controllers\Prove;

use App\Http\Controllers\Controller;
use App\Models\Dataset;
use App\Models\RecordCheck;
use App\Models\Tally;
use App\Problems\ValuesAreMasked;
use App\Queries\Prove\RecordProposals;
use App\Queries\Prove\RecordsOfTally;
use App\Queries\Review\Masks;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Str;
use Illuminate\Validation\Rule;
use NineTally\Core\Report\CsvLine;
use NineTally\Core\Row\Side;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** Values of a tally that must have a record in another dataset. */
final class RequiredRecordController extends Controller
{
    public function __construct(private readonly RecordsOfTally $records, private readonly Masks $masks) {}

    public function index(Request $request, Tally $tally): JsonResponse
    {
        $person = $this->person($request);

        return response()->json(['items' => $this->records->all($tally, $this->masks->forPerson($person, $tally), $person)]);
    }

    /** What probably refers to records of other datasets of the migration. */
    public function proposals(Dataset $dataset, RecordProposals $proposals): JsonResponse
    {
        return response()->json(['items' => $proposals->of($dataset)]);
    }

    /** Values without a record of one kind, those that most rows need first; or records of a side that nothing refers to. */
    public function lines(Request $request, Tally $tally, int $number): JsonResponse
    {
        $request->validate(['from' => ['integer', 'min:1', 'max:1000000']]);
        $person = $this->person($request);

        return response()->json(
            $this->records->lines(
                $tally,
                $this->check($tally, $number),
                $this->list($request),
                max(1, $request->integer('from', 1)),
                $this->masks->forPerson($person, $tally),
                $person,
            ),
        );
    }

    /** The same as CSV, for those who create what is missing. */
    public function take(Request $request, Tally $tally, int $number): StreamedResponse
    {
        [$check, $list, $person] = [$this->check($tally, $number), $this->list($request), $this->person($request)];
        $rule = $check->rule();
        if ($this->records->isMasked($tally, $rule, $this->masks->forPerson($person, $tally), $person)) {
            throw new ValuesAreMasked(
                'These values are masked for you, so they cannot be taken away. Show the sensitive values first if your role may see them.',
            );
        }
        $side = str_ends_with($list, Side::Source->value) ? Side::Source : Side::Target;
        $name = Str::slug("{$rule->in} {$list} tally {$tally->number}");

        return response()->streamDownload(function () use ($check, $list, $rule, $side): void {
            echo CsvLine::of([...$rule->recordColumns($side), str_contains($list, ' ') ? 'records' : 'rows that need it']);
            foreach ($this->records->every($check, $list) as $line) {
                echo CsvLine::of([...$line->figures['values'], $line->figures['rows'] ?? $line->figures['records'] ?? 0]);
            }
        }, "{$name}.csv", ['Content-Type' => 'text/csv; charset=UTF-8']);
    }

    private function check(Tally $tally, int $number): RecordCheck
    {
        $tally->mustHaveRecords();

        return RecordCheck::query()->where(['tally_id' => $tally->id, 'number' => $number])->firstOrFail();
    }

    private function list(Request $request): string
    {
        $request->validate(['list' => ['required', Rule::in(RecordsOfTally::lists())]]);

        return $request->string('list')->toString();
    }
}
