<?php

declare(strict_types=1);

namespace App\Http\Controllers\Review;

use App\Actions\Review\ChooseKeptRow;
use App\Actions\Review\LookAtRepeats;
use App\Actions\Review\TryPolicies;
use App\Http\Controllers\Controller;
use App\Models\Dataset;
use App\Queries\Review\Masks;
use App\Queries\Review\SideMask;
use App\Questions\LookedParts;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Validation\Rule;
use NineTally\Core\Profile\Repeats\LookedSide;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/**
 * Rows that share values: looked at, tried what becomes of them, and chosen among by hand.
 *
 * @phpstan-import-type Asked from LookAtRepeats
 * @phpstan-import-type Policies from TryPolicies
 * @phpstan-import-type Part from LookedParts
 */
final class RepeatsController extends Controller
{
    private const OF_LOOK = [
        'columns' => ['array', 'max:20'],
        'columns.*' => ['string', 'distinct'],
        'forgives' => ['array'],
        'except' => ['array'],
        'except.source' => ['array', 'max:2000'],
        'except.target' => ['array', 'max:2000'],
        'except.*.*' => ['string'],
        'stake' => ['nullable', 'string', 'max:1000'],
        'parts' => ['array', 'max:5'],
        'parts.*' => ['array:column,part,length'],
        'parts.*.column' => ['required', 'string', 'max:1000'],
        'parts.*.length' => ['integer', 'between:1,100'],
        'isPrepared' => ['boolean'],
    ];

    public function __construct(private readonly Masks $masks) {}

    /** Rows that share the values of some columns; the key's where none are named. */
    public function look(Request $request, Dataset $dataset, LookAtRepeats $look): JsonResponse
    {
        return response()->json($look($dataset, self::asked($request), $this->masksOf($request, $dataset)));
    }

    public function choose(Request $request, Dataset $dataset, ChooseKeptRow $choose): JsonResponse
    {
        /** @var array{side: 'source'|'target', group: int, row: int|null, reason?: string|null, seenDraft: int} $chosen */
        $chosen = $request->validate([
            'side' => ['required', Rule::enum(Side::class)],
            'group' => ['required', 'integer', 'min:0'],
            'row' => ['present', 'nullable', 'integer', 'min:0'],
            'reason' => ['required_unless:row,null', 'nullable', 'string', 'max:2000'],
            'seenDraft' => ['required', 'integer'],
        ]);

        return response()->json(['draft' => $choose(
            $dataset,
            self::asked($request),
            Side::from($chosen['side']),
            $chosen['group'],
            $chosen['row'],
            trim($chosen['reason'] ?? ''),
            $this->person($request),
            $chosen['seenDraft'],
        )]);
    }

    /** What policies would do with rows that share the key; of two also where they differ. */
    public function try(Request $request, Dataset $dataset, TryPolicies $try): JsonResponse
    {
        /** @var array{policies?: list<Policies>, stake?: string|null} $asked */
        $asked = $request->validate([
            'policies' => ['array', 'max:16'],
            'policies.*.source' => ['required', 'array'],
            'policies.*.target' => ['required', 'array'],
            'stake' => ['nullable', 'string', 'max:1000'],
        ]);

        return response()->json($try(
            $dataset,
            $asked['policies'] ?? [],
            $asked['stake'] ?? null,
            $this->masksOf($request, $dataset),
        ));
    }

    /** @return Asked */
    private static function asked(Request $request): array
    {
        /**
         * @var array{columns?: list<string>, forgives?: list<string>, except?: array<'source'|'target', list<string>>, stake?: string|null,
         *     parts?: list<Part>, isPrepared?: bool} $asked
         */
        $asked = $request->validate([
            ...self::OF_LOOK,
            'forgives.*' => ['string', 'distinct', Rule::in(LookedSide::FORGIVABLE)],
            'parts.*.part' => ['required', Rule::in(LookedParts::PARTS)],
        ]);

        return [
            'columns' => $asked['columns'] ?? [],
            'forgives' => $asked['forgives'] ?? [],
            'except' => ['source' => $asked['except']['source'] ?? [], 'target' => $asked['except']['target'] ?? []],
            'stake' => $asked['stake'] ?? null,
            'parts' => $asked['parts'] ?? [],
            'isPrepared' => $asked['isPrepared'] ?? true,
        ];
    }

    /** @return Sides<SideMask> */
    private function masksOf(Request $request, Dataset $dataset): Sides
    {
        $person = $this->person($request);

        return Sides::each(fn(Side $side): SideMask => $this->masks->ofSide($dataset, $side, $person));
    }
}
