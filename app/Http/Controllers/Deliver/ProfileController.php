<?php

declare(strict_types=1);

namespace App\Http\Controllers\Deliver;

use App\Actions\Deliver\FindViolations;
use App\Actions\Deliver\ProfileBothSides;
use App\Http\Controllers\Controller;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Queries\Deliver\RowsOfColumn;
use App\Questions\Answers;
use App\Questions\ColumnCombinations;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Validation\Rule;

final class ProfileController extends Controller
{
    public function show(Dataset $dataset, ProfileBothSides $view): JsonResponse
    {
        $this->allow('view', $dataset->migration);

        return response()->json($view($dataset));
    }

    public function rows(Request $request, Delivery $delivery, RowsOfColumn $rows): JsonResponse
    {
        $this->allow('view', $delivery->dataset->migration);
        /** @var array{column: string, is: 'blank'|'value'|'shape'|'invisible'|'line-ends', value?: string|null} $asked */
        $asked = $request->validate([
            'column' => ['required', 'string', Rule::in($delivery->columns)],
            'is' => ['required', 'in:blank,value,shape,invisible,line-ends'],
            'value' => ['nullable', 'string'],
        ]);

        return response()->json($rows($delivery, $asked['column'], $asked['is'], $asked['value'] ?? ''));
    }

    public function combinations(Request $request, Delivery $delivery, Answers $answers): JsonResponse
    {
        $this->allow('view', $delivery->dataset->migration);
        /** @var array{columns: non-empty-list<string>} $asked */
        $asked = $request->validate([
            'columns' => ['required', 'array', 'min:1', 'max:20'],
            'columns.*' => ['string', 'distinct', Rule::in($delivery->columns)],
        ]);
        $answer = $answers->to(new ColumnCombinations($delivery->id, $asked['columns']));

        return response()->json([...$answer->progress(), 'columns' => $asked['columns'], 'counted' => $answer->content]);
    }

    public function sharing(Request $request, Delivery $delivery, RowsOfColumn $rows): JsonResponse
    {
        $this->allow('view', $delivery->dataset->migration);
        /** @var array{columns: non-empty-list<string>, cells: list<string|null>} $asked */
        $asked = $request->validate([
            'columns' => ['required', 'array', 'min:1', 'max:20'],
            'columns.*' => ['string', Rule::in($delivery->columns)],
            'cells' => ['required', 'array'],
            'cells.*' => ['nullable', 'string'],
        ]);

        return response()->json(
            $rows->sharing(
                $delivery,
                array_combine(
                    $asked['columns'],
                    array_pad(array_slice($asked['cells'], 0, count($asked['columns'])), count($asked['columns']), ''),
                ),
            ),
        );
    }

    public function misfits(Dataset $dataset, FindViolations $misfits): JsonResponse
    {
        $this->allow('view', $dataset->migration);

        return response()->json($misfits($dataset));
    }
}
