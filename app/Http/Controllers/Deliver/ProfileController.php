<?php

declare(strict_types=1);

namespace App\Http\Controllers\Deliver;

use App\Http\Controllers\Controller;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Queries\Deliver\ProfileView;
use App\Queries\Deliver\RowsOfColumn;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Validation\Rule;

final class ProfileController extends Controller
{
    public function show(Dataset $dataset, ProfileView $view): JsonResponse
    {
        $this->allow('view', $dataset->migration);

        return response()->json($view($dataset));
    }

    public function rows(Request $request, Delivery $delivery, RowsOfColumn $rows): JsonResponse
    {
        $this->allow('view', $delivery->dataset->migration);
        /** @var array{column: string, is: 'blank'|'value'|'shape'|'invisible'|'line-ends', value?: string|null} $asked */
        $asked = $request->validate(['column' => ['required', 'string', Rule::in($delivery->columns)], 'is' => ['required', 'in:blank,value,shape,invisible,line-ends'], 'value' => ['nullable', 'string']]);

        return response()->json($rows($delivery, $asked['column'], $asked['is'], $asked['value'] ?? ''));
    }
}
