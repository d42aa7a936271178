<?php

declare(strict_types=1);

namespace App\Http\Controllers\Review;

use App\Actions\Review\CorrectBridgedKeys;
use App\Actions\Review\PutBridgesOfTable;
use App\Actions\Review\RuleOnBridges;
use App\Http\Controllers\Controller;
use App\Models\Dataset;
use App\Queries\Review\BridgedKeys;
use App\Queries\Review\Masks;
use App\Queries\Review\SideMask;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Str;
use Illuminate\Validation\Rule;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** Keys that bridges join, and which side of them is right. */
final class BridgeController extends Controller
{
    public function __construct(private readonly BridgedKeys $bridges, private readonly Masks $masks) {}

    public function index(Request $request, Dataset $dataset): JsonResponse
    {
        return response()->json($this->bridges->page($dataset, max(1, $request->integer('from', 1)), $this->masksOf($request, $dataset)));
    }

    public function rule(Request $request, Dataset $dataset, RuleOnBridges $rule): JsonResponse
    {
        /** @var array{numbers: list<int>, decision: 'source'|'target'|'open'|'removed', seenDraft: int} $ruled */
        $ruled = $request->validate([
            'numbers' => ['present', 'array', 'max:1000'],
            'numbers.*' => ['integer', 'min:1'],
            'decision' => ['required', Rule::in(['source', 'target', 'open', 'removed'])],
            'seenDraft' => ['required', 'integer'],
        ]);

        return response()->json([
            'draft' => $rule($dataset, $ruled['numbers'], $ruled['decision'], $this->person($request), $ruled['seenDraft']),
        ]);
    }

    /** Bridges from a table, first counted and then put into the draft. */
    public function put(Request $request, Dataset $dataset, PutBridgesOfTable $put): JsonResponse
    {
        $request->validate([
            'table' => ['required', 'string'],
            'isWhole' => ['required', 'boolean'],
            'isTried' => ['required', 'boolean'],
            'seenDraft' => ['required', 'integer'],
        ]);
        // As it was sent: a key may begin or end with a space.
        /** @var array{table: string} $sent */
        $sent = json_decode($request->getContent(), true, 4, JSON_THROW_ON_ERROR);

        return response()->json($put(
            $dataset,
            $sent['table'],
            $request->boolean('isWhole'),
            $request->boolean('isTried'),
            $this->person($request),
            $request->integer('seenDraft'),
        ));
    }

    /** The keys that the target has to set, as corrections beside those of defects. */
    public function correct(Request $request, Dataset $dataset, CorrectBridgedKeys $correct): JsonResponse
    {
        $set = $correct($dataset, $this->person($request));

        return response()->json(['id' => $set->id, 'number' => $set->number, 'lines' => $set->lines], Response::HTTP_CREATED);
    }

    public function take(Request $request, Dataset $dataset): StreamedResponse
    {
        $masks = $this->masksOf($request, $dataset);

        return response()->streamDownload(
            function () use ($dataset, $masks): void {
                foreach ($this->bridges->corrections($dataset, $masks) as $line) {
                    echo $line;
                }
            },
            Str::slug($dataset->name).'-bridges.csv',
            ['Content-Type' => 'text/csv; charset=UTF-8'],
        );
    }

    /** @return Sides<SideMask> */
    private function masksOf(Request $request, Dataset $dataset): Sides
    {
        $person = $this->person($request);

        return Sides::each(fn(Side $side): SideMask => $this->masks->ofSide($dataset, $side, $person));
    }
}
