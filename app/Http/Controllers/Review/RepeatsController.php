<?php

declare(strict_types=1);

namespace App\Http\Controllers\Review;

use App\Actions\Review\LookAtRepeats;
use App\Http\Controllers\Controller;
use App\Models\Dataset;
use App\Queries\Review\Masks;
use App\Queries\Review\SideMask;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Validation\Rule;
use NineTally\Core\Profile\Repeats\LookedSide;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

final class RepeatsController extends Controller
{
    public function __construct(private readonly Masks $masks) {}

    /** Rows that share the values of some columns; the key's where none are named. */
    public function look(Request $request, Dataset $dataset, LookAtRepeats $look): JsonResponse
    {
        /**
         * @var array{columns?: list<string>, forgives?: list<string>, except?: array<'source'|'target', list<string>>, stake?: string|null}
         *     $asked
         */
        $asked = $request->validate([
            'columns' => ['array', 'max:20'],
            'columns.*' => ['string', 'distinct'],
            'forgives' => ['array'],
            'forgives.*' => ['string', 'distinct', Rule::in(LookedSide::FORGIVABLE)],
            'except' => ['array'],
            'except.source' => ['array', 'max:2000'],
            'except.target' => ['array', 'max:2000'],
            'except.*.*' => ['string'],
            'stake' => ['nullable', 'string', 'max:1000'],
        ]);
        $person = $this->person($request);
        $masks = Sides::each(fn(Side $side): SideMask => $this->masks->ofSide($dataset, $side, $person));

        return response()->json($look(
            $dataset,
            $asked['columns'] ?? [],
            $asked['forgives'] ?? [],
            ['source' => $asked['except']['source'] ?? [], 'target' => $asked['except']['target'] ?? []],
            $asked['stake'] ?? null,
            $masks,
        ));
    }
}
