<?php

declare(strict_types=1);

namespace App\Http\Controllers\Review;

use App\Actions\Review\NearValueLooks;
use App\Http\Controllers\Controller;
use App\Models\Dataset;
use App\Queries\Review\Masks;
use App\Queries\Review\SideMask;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Validation\Rule;
use NineTally\Core\Likeness\LikenessKind;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/** Values that may mean the same on both sides. */
final class NearValueController extends Controller
{
    private const OF_REFERENCE = [
        'reference' => ['nullable', 'array:name,column'],
        'reference.name' => ['required_with:reference', 'string', 'max:200'],
        'reference.column' => ['required_with:reference', 'string', 'max:1000'],
    ];

    public function __construct(private readonly NearValueLooks $looks, private readonly Masks $masks) {}

    public function look(Request $request, Dataset $dataset): JsonResponse
    {
        /**
         * @var array{column?: string|null, kind?: string|null, equal?: list<string>, alike?: list<string>,
         *     reference?: array{name: string, column: string}|null} $asked
         */
        $asked = $request->validate([
            ...self::OF_REFERENCE,
            'column' => ['nullable', 'string', 'max:1000'],
            'equal' => ['array', 'max:10'],
            'equal.*' => ['string', 'max:1000'],
            'alike' => ['array', 'max:5'],
            'alike.*' => ['string', 'max:1000'],
            'kind' => ['nullable', Rule::enum(LikenessKind::class)],
        ]);
        $person = $this->person($request);
        $masks = Sides::each(fn(Side $side): SideMask => $this->masks->ofSide($dataset, $side, $person));

        return response()->json($this->looks->look($dataset, [
            'column' => $asked['column'] ?? null,
            'kind' => $asked['kind'] ?? null,
            'reference' => $asked['reference'] ?? null,
            'equal' => $asked['equal'] ?? [],
            'alike' => $asked['alike'] ?? [],
        ], $masks, $person));
    }

    public function rule(Request $request, Dataset $dataset): JsonResponse
    {
        $request->validate([
            ...self::OF_REFERENCE,
            'column' => ['required', 'string', 'max:1000'],
            'entries' => ['required', 'array', 'max:1000'],
            'entries.*.source' => ['required', 'string'],
            'entries.*.target' => ['present', 'string'],
            'decision' => ['required', Rule::in(['confirmed', 'open'])],
            'seenDraft' => ['required', 'integer'],
        ]);
        /**
         * @var array{column: string, reference?: array{name: string, column: string}|null,
         *     entries: list<array{source: string, target: string}>, decision: string, seenDraft: int} $asked
         */
        $asked = json_decode($request->getContent(), true, 16, JSON_THROW_ON_ERROR);

        return response()->json(['draft' => $this->looks->rule(
            $dataset,
            $asked['column'],
            $asked['reference'] ?? null,
            // As they were sent: a value may end in a space.
            array_map(static fn(array $entry): array => ['source' => $entry['source'], 'target' => $entry['target']], $asked['entries']),
            $asked['decision'] === 'confirmed',
            $this->person($request),
            $asked['seenDraft'],
        )]);
    }
}
