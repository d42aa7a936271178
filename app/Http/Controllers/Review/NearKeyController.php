<?php

declare(strict_types=1);

namespace App\Http\Controllers\Review;

use App\Actions\Review\LookForNearKeys;
use App\Actions\Review\RuleOnNearKeys;
use App\Http\Controllers\Controller;
use App\Models\Tally;
use App\Queries\Review\Masks;
use App\Questions\NearRows;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Validation\Rule;
use NineTally\Core\Likeness\LikenessKind;

/**
 * Missing and extra rows that are likely to be the same.
 *
 * @phpstan-import-type Look from NearRows
 */
final class NearKeyController extends Controller
{
    public function __construct(private readonly Masks $masks) {}

    public function look(Request $request, Tally $tally, LookForNearKeys $look): JsonResponse
    {
        /**
         * @var array{columns?: list<Look>, score?: float|null,
         *     margin?: float|null, state?: string|null, order?: string|null, from?: int|null, again?: bool|null} $asked
         */
        $asked = $request->validate([
            ...$this->ofLook($tally, isRequired: false),
            'score' => ['nullable', 'numeric', 'between:0,1'],
            'margin' => ['nullable', 'numeric', 'between:0,1'],
            'state' => ['nullable', Rule::in(['open', 'confirmed', 'refused', 'all'])],
            'order' => ['nullable', Rule::in(['score', 'margin', 'source'])],
            'from' => ['nullable', 'integer', 'min:1'],
            'again' => ['nullable', 'boolean'],
        ]);
        $columns = self::columns($asked['columns'] ?? []);

        return response()->json($look(
            $tally,
            $this->masks->forPerson($this->person($request), $tally),
            $columns,
            array_intersect_key($asked, ['score' => true, 'margin' => true, 'state' => true, 'order' => true, 'from' => true]),
            $asked['again'] ?? false,
        ));
    }

    public function cancel(Request $request, Tally $tally, LookForNearKeys $look): Response
    {
        /** @var array{columns: non-empty-list<Look>} $asked */
        $asked = $request->validate($this->ofLook($tally, isRequired: true));
        /** @var non-empty-list<Look> $columns */
        $columns = self::columns($asked['columns']);
        $look->cancel($tally, $columns);

        return response()->noContent();
    }

    public function rule(Request $request, Tally $tally, RuleOnNearKeys $rule): JsonResponse
    {
        /**
         * @var array{columns: non-empty-list<Look>, decision: 'confirmed'|'refused'|'open', pairs?: list<array{int, int}>|null,
         *     score?: float|null, margin?: float|null,
         *     seenDraft: int} $asked
         */
        $asked = $request->validate([
            ...$this->ofLook($tally, isRequired: true),
            'decision' => ['required', Rule::in(['confirmed', 'refused', 'open'])],
            // As one: there may be as many as rows, and a rule for each of them would take longer than what it is for.
            'pairs' => [
                'nullable',
                'array',
                'max:'.NearRows::MOST,
                static function (string $name, mixed $pairs, \Closure $fail): void {
                    foreach (is_array($pairs) ? $pairs : [] as $pair) {
                        if (
                            ! is_array($pair) ||
                            ! array_is_list($pair) ||
                            count(array_filter($pair, is_int(...))) !== 2 ||
                            count($pair) !== 2
                        ) {
                            $fail('A pair is two places of rows, as the look has them.');

                            return;
                        }
                    }
                }],
            'score' => ['required_without:pairs', 'numeric', 'between:0,1'],
            'margin' => ['required_without:pairs', 'numeric', 'between:0,1'],
            'seenDraft' => ['required', 'integer'],
        ]);
        /** @var non-empty-list<Look> $columns */
        $columns = self::columns($asked['columns']);

        return response()->json($rule(
            $tally,
            $columns,
            $asked['decision'],
            $asked['pairs'] ?? null,
            ['score' => (float) ($asked['score'] ?? 1), 'margin' => (float) ($asked['margin'] ?? 1)],
            $this->person($request),
            $asked['seenDraft'],
        ));
    }

    public function equivalents(Request $request, Tally $tally, RuleOnNearKeys $rule): JsonResponse
    {
        /** @var array{equivalents: list<array{word: string, meaning: string}>, seenDraft: int} $asked */
        $asked = $request->validate([
            'equivalents' => ['present', 'array', 'max:1000'],
            'equivalents.*.word' => ['required', 'string', 'max:100'],
            'equivalents.*.meaning' => ['required', 'string', 'max:100'],
            'seenDraft' => ['required', 'integer'],
        ]);

        return response()->json([
            'draft' => $rule->equivalents($tally, $asked['equivalents'], $this->person($request), $asked['seenDraft']),
        ]);
    }

    /** @return array<string, list<mixed>> */
    private function ofLook(Tally $tally, bool $isRequired): array
    {
        $plan = $tally->planVersion->plan();
        $columns = static fn(string $side): array => [
            ...array_column($plan->key, $side),
            ...array_column($plan->columnPairs, $side),
        ];

        return [
            'columns' => [$isRequired ? 'required' : 'sometimes', 'array', 'max:12'],
            'columns.*.source' => ['required', 'string', 'distinct', Rule::in($columns('source'))],
            'columns.*.target' => ['required', 'string', Rule::in($columns('target'))],
            'columns.*.kind' => ['required', Rule::enum(LikenessKind::class)],
            'columns.*.weight' => ['required', 'integer', 'between:1,10'],
        ];
    }

    /**
     * Always in one order, so that the same look is the same question.
     *
     * @param  list<Look>  $columns
     * @return list<Look>
     */
    private static function columns(array $columns): array
    {
        return array_map(static fn(array $column): array => [
            'source' => $column['source'],
            'target' => $column['target'],
            'kind' => $column['kind'],
            'weight' => (int) $column['weight'],
        ], $columns);
    }
}
