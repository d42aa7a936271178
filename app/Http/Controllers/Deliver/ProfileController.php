<?php

declare(strict_types=1);

namespace App\Http\Controllers\Deliver;

use App\Actions\Deliver\FindViolations;
use App\Actions\Deliver\ProfileBothSides;
use App\Http\Controllers\Controller;
use App\Jobs\ProfileDelivery;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\DeliveryProfile;
use App\Queries\Deliver\RowsOfColumn;
use App\Queries\Review\Masks;
use App\Queries\Review\SideMask;
use App\Questions\Answers;
use App\Questions\ColumnCombinations;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Validation\Rule;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

final class ProfileController extends Controller
{
    public function __construct(private readonly Masks $masks) {}

    public function show(Request $request, Dataset $dataset, ProfileBothSides $view): JsonResponse
    {
        $person = $this->person($request);

        return response()->json(
            $view($dataset, Sides::each(fn(Side $side): SideMask => $this->masks->ofSide($dataset, $side, $person))),
        );
    }

    /** Has the deliveries looked at again that could not be looked at to their end. */
    public function again(Dataset $dataset): Response
    {
        foreach (Side::cases() as $side) {
            $delivery = $dataset->latestDelivery($side);
            $failed = DeliveryProfile::query()->whereKey($delivery->id ?? 0)->whereNotNull('problem');
            if ($delivery !== null && $failed->update(['problem' => null]) === 1) {
                ProfileDelivery::dispatch($delivery->id);
            }
        }

        return response()->noContent(Response::HTTP_ACCEPTED);
    }

    public function rows(Request $request, Delivery $delivery, RowsOfColumn $rows): JsonResponse
    {
        /** @var array{column: string, is: 'blank'|'value'|'shape'|'invisible'|'line-ends', value?: string|null} $asked */
        $asked = $request->validate([
            'column' => ['required', 'string', Rule::in($delivery->columns)],
            'is' => ['required', 'in:blank,value,shape,invisible,line-ends'],
            'value' => ['nullable', 'string'],
        ]);

        $mask = $this->masks->ofSide($delivery->dataset, $delivery->side, $this->person($request));
        if (in_array($asked['is'], ['value', 'shape'], true)) {
            $mask->mustAllow([$asked['column']]);
        }

        return response()->json($this->masked($rows($delivery, $asked['column'], $asked['is'], $asked['value'] ?? ''), $mask));
    }

    public function combinations(Request $request, Delivery $delivery, Answers $answers): JsonResponse
    {
        /** @var array{columns: non-empty-list<string>} $asked */
        $asked = $request->validate([
            'columns' => ['required', 'array', 'min:1', 'max:20'],
            'columns.*' => ['string', 'distinct', Rule::in($delivery->columns)],
        ]);
        $this->masks->ofSide($delivery->dataset, $delivery->side, $this->person($request))->mustAllow($asked['columns']);
        $answer = $answers->to(new ColumnCombinations($delivery->id, $asked['columns']));

        return response()->json([...$answer->progress(), 'columns' => $asked['columns'], 'counted' => $answer->content]);
    }

    public function sharing(Request $request, Delivery $delivery, RowsOfColumn $rows): JsonResponse
    {
        /** @var array{columns: non-empty-list<string>, cells: list<string|null>} $asked */
        $asked = $request->validate([
            'columns' => ['required', 'array', 'min:1', 'max:20'],
            'columns.*' => ['string', Rule::in($delivery->columns)],
            'cells' => ['required', 'array'],
            'cells.*' => ['nullable', 'string'],
        ]);

        $mask = $this->masks->ofSide($delivery->dataset, $delivery->side, $this->person($request));
        $mask->mustAllow($asked['columns']);
        $cells = array_pad(array_slice($asked['cells'], 0, count($asked['columns'])), count($asked['columns']), '');

        return response()->json($this->masked($rows->sharing($delivery, array_combine($asked['columns'], $cells)), $mask));
    }

    public function misfits(Request $request, Dataset $dataset, FindViolations $misfits): JsonResponse
    {

        return response()->json($misfits($dataset, $this->masks->ofSide($dataset, Side::Source, $this->person($request))));
    }

    /**
     * @param  array{columns: list<string>, rows: list<array{part: int, line: int, cells: list<string>}>, isAll: bool}  $shown
     * @return array<string, mixed>
     */
    private function masked(array $shown, SideMask $mask): array
    {
        return [...$shown, 'rows' => $mask->rows($shown['columns'], $shown['rows'])];
    }
}
