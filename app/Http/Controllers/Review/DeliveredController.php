<?php

declare(strict_types=1);

namespace App\Http\Controllers\Review;

use App\Http\Controllers\Controller;
use App\Models\Tally;
use App\Queries\Review\DeliveredRecord;
use App\Queries\Review\FindingPages;
use App\Queries\Review\Masks;
use App\Queries\Review\RulableRow;
use App\Questions\Answers;
use App\Questions\KeysBeside;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use NineTally\Core\Row\Side;

/** To believe a finding: its row where it was delivered, and, of a row that only one side has, what stands next to its key on the other. */
final class DeliveredController extends Controller
{
    public function __construct(private readonly Masks $masks, private readonly FindingPages $pages) {}

    public function show(Request $request, Tally $tally, int $sequence, DeliveredRecord $delivered): JsonResponse
    {
        $this->allow('view', $tally->migration);
        $row = $this->row($request, $tally, $sequence)->finding;

        return response()->json([
            'source' => $delivered->of($tally, Side::Source, $row->placeOn(Side::Source)),
            'target' => $delivered->of($tally, Side::Target, $row->placeOn(Side::Target)),
        ]);
    }

    public function beside(Request $request, Tally $tally, int $sequence, Answers $answers): JsonResponse
    {
        $this->allow('view', $tally->migration);
        $row = $this->row($request, $tally, $sequence)->finding;
        if ($row->side === null || $row->deliveredKey === null) {
            return response()->json(['isWaiting' => false, 'done' => 0, 'total' => 0, 'problem' => null, 'columns' => [], 'rows' => []]);
        }
        $answer = $answers->to(KeysBeside::of($tally, $row->side->other(), $row->deliveredKey->cells));

        return response()->json([
            ...$answer->progress(),
            'columns' => $answer->content['columns'] ?? [],
            'rows' => $answer->content['rows'] ?? [],
        ]);
    }

    private function row(Request $request, Tally $tally, int $sequence): RulableRow
    {
        return $this->pages->row($tally, $this->masks->forPerson($this->person($request), $tally), $sequence);
    }
}
