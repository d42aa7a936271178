<?php

declare(strict_types=1);

namespace App\Http\Controllers\Review;

use App\Actions\Review\FindAgreeingRow;
use App\Http\Controllers\Controller;
use App\Http\Controllers\TakenTable;
use App\Http\Requests\Review\FilterRequest;
use App\Http\Resources\CellFindingResource;
use App\Http\Resources\RecordResource;
use App\Http\Resources\RowFindingResource;
use App\Http\Resources\RulingResource;
use App\Http\Resources\WorkbookResource;
use App\Jobs\WriteFindings;
use App\Models\Tally;
use App\Models\Workbook;
use App\Problems\ValuesAreMasked;
use App\Queries\Review\ActOfTally;
use App\Queries\Review\ActsOfTally;
use App\Queries\Review\AdditionalColumns;
use App\Queries\Review\CountsByColumn;
use App\Queries\Review\DifferingColumns;
use App\Queries\Review\FindingPages;
use App\Queries\Review\Mask;
use App\Queries\Review\Masks;
use App\Queries\Review\PatternRules;
use App\Queries\Review\Record;
use App\Queries\Review\RecordHistory;
use App\Queries\Review\RulableCell;
use App\Queries\Review\RulableRow;
use App\Queries\Review\StandingActs;
use App\Queries\Review\ValuePairs;
use App\Queries\Review\WorthOfFindings;
use App\Queries\TakeAway\FindingTables;
use App\Queries\TakeAway\TableText;
use App\Rulings\FindingSet\Filter;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** Lists answer the findings of a filter from a place on ("from"), so that a page begins at any place of the list. */
final class FindingController extends Controller
{
    public function __construct(private readonly Masks $masks) {}

    public function index(
        FilterRequest $request,
        Tally $tally,
        FindingPages $pages,
        AdditionalColumns $beside,
        DifferingColumns $differing,
        StandingActs $acts,
    ): JsonResponse {
        $filter = $request->filter();
        $mask = $this->mask($request, $tally, $filter);
        [$from, $limit, $order] = [$request->from(), $request->limit(), $request->order()];
        if ($order !== null && ! $filter->isOfCells) {
            throw ValidationException::withMessages([
                'order' => 'Rows have no difference to be sorted by. Ask for their cells ("of=cells"), or leave the order out.',
            ]);
        }
        if ($order !== null) {
            $mask->mustAllowDifferences($filter, $tally);
        }
        ['items' => $items, 'total' => $total] = $pages->page($tally, $filter, $mask, $from, $limit, $order);
        $values = $beside->of($tally, $mask, $items, $request->beside());
        $columns = $differing->of($tally, $items);
        $lines = array_map(static fn(RulableRow|RulableCell $finding): array => $finding instanceof RulableCell
            ? CellFindingResource::make($finding)->resolve($request) + ['beside' => $values[$finding->rowSequence] ?? []]
            : RowFindingResource::make($finding)->resolve($request) + [
                'beside' => $values[$finding->finding->sequence] ?? [],
                'differingColumns' => $columns[$finding->finding->sequence] ?? [],
            ], $items);

        return response()->json([
            'of' => $filter->isOfCells ? 'cells' : 'rows',
            'items' => $lines,
            'acts' => $acts->of($items),
            'next' => count($items) === $limit && ($total === null || $from + $limit <= $total) ? $from + $limit : null,
            'previous' => $from > 1 ? max(1, $from - $limit) : null,
            'total' => $total,
        ]);
    }

    public function count(FilterRequest $request, Tally $tally, FindingPages $pages): JsonResponse
    {

        $filter = $request->filter();
        $this->mask($request, $tally, $filter);

        return response()->json(['total' => $pages->count($tally, $filter)]);
    }

    /** How many of them each value of a column has. */
    public function byColumn(FilterRequest $request, Tally $tally, CountsByColumn $counts): JsonResponse
    {
        $filter = $request->filter();
        $column = $request->string('by')->toString();
        $mask = $this->mask($request, $tally, $filter);
        // What is counted by its values is told by them.
        $isMasked = $mask->hidesColumn($column);

        $counted = $isMasked ? ['items' => [], 'isAll' => true] : $counts->of($tally, $filter, $column);

        return response()->json($counted + ['isMasked' => $isMasked]);
    }

    /** Where a finding stands in the list of a filter, counted from 1. */
    public function place(FilterRequest $request, Tally $tally, FindingPages $pages): JsonResponse
    {
        $filter = $request->filter();
        $this->mask($request, $tally, $filter);

        return response()->json(['place' => $pages->placeOf($tally, $filter, $request->integer('finding'))]);
    }

    /** What the differences of the filter's cells come to, by column. */
    public function worth(FilterRequest $request, Tally $tally, WorthOfFindings $worth): JsonResponse
    {
        $filter = $request->filter();

        return response()->json(['items' => $worth->of($tally, $filter, $this->mask($request, $tally, $filter))]);
    }

    /** The findings of a filter as CSV or JSON Lines, written while they are sent. */
    public function take(FilterRequest $request, Tally $tally, FindingTables $tables): StreamedResponse
    {
        $filter = $request->filter();
        $mask = $this->mask($request, $tally, $filter);

        return TakenTable::as($request, $tables->of($tally, $mask, $filter, $request->beside()), $this->fileName($tally, $filter));
    }

    /** What the columns of a table that is taken away hold, as Table Schema says it. */
    public function schema(FilterRequest $request, Tally $tally, FindingTables $tables): JsonResponse
    {
        $filter = $request->filter();
        $table = $tables->of($tally, $this->mask($request, $tally), $filter, $request->beside());

        return response()
            ->json((new TableText($table))->schema(), options: JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE)
            ->header(
                'Content-Disposition',
                'attachment; filename="'.
                    Str::slug($tally->dataset->name).
                    "-tally-{$tally->number}-".
                    ($filter->isOfCells ? 'cells' : 'rows').
                    '.schema.json"',
            );
    }

    /** Has the findings of a filter written as a workbook. */
    public function askForWorkbook(FilterRequest $request, Tally $tally): JsonResponse
    {
        $filter = $request->filter();
        $this->mask($request, $tally, $filter);
        $person = $this->person($request);
        $workbook = Workbook::askFor($person, $tally->dataset_id, $this->fileName($tally, $filter).'.xlsx');
        WriteFindings::dispatch($workbook->id, $tally->id, $filter, $person->id, $request->beside());

        return response()->json(WorkbookResource::make($workbook)->resolve($request), Response::HTTP_ACCEPTED);
    }

    public function record(Request $request, Tally $tally, int $sequence, FindingPages $pages, ActsOfTally $acts): JsonResponse
    {
        $mask = $this->mask($request, $tally);
        $record = Record::read($pages, $tally, $mask, $sequence);

        return response()->json([
            ...RecordResource::make($record)->resolve($request),
            'rulings' => array_map(
                static fn(ActOfTally $of): array => RulingResource::make($of->act)->masked($mask)->resolve($request) + $of->toArray(),
                $acts->these($tally, $mask, $record->rulingIds()),
            ),
        ]);
    }

    /** Every act that ever covered the record or one of its cells, in any tally. */
    public function history(Request $request, Tally $tally, int $sequence, FindingPages $pages, RecordHistory $history): JsonResponse
    {
        $pages->row($tally, $mask = $this->mask($request, $tally), $sequence);

        return response()->json([
            'items' => array_map(static fn(array $line): array => [
                'ruling' => RulingResource::make($line['act'])->masked($mask)->resolve($request),
                'tally' => $line['act']->tally->number,
                'rows' => $line['rows'],
                'columns' => $line['columns'],
                'undone' => $line['undo'] === null ? null : [
                    'tally' => $line['undo']->tally->number,
                    'person' => $line['undo']->user->name,
                    'at' => $line['undo']->created_at->toIso8601ZuluString(),
                ],
            ], $history->of($tally, $sequence)),
        ]);
    }

    /** Of the whole pattern, or of those of its cells that the terms of a filter mean. */
    public function valuePairs(FilterRequest $request, Tally $tally, int $number, ValuePairs $pairs): JsonResponse
    {
        $filter = Filter::from([...$request->filter()->toArray(), 'of' => 'cells', 'pattern' => $number]);

        $pattern = $tally->patterns()->where('number', $number)->firstOrFail();
        if ($this->mask($request, $tally, $filter)->hides($pattern->source_column)) {
            return response()->json(['items' => [], 'isAll' => false, 'cellsRead' => 0, 'isMasked' => true]);
        }

        return response()->json([...$pairs->of($tally, $pattern, $filter), 'isMasked' => false]);
    }

    public function rules(Request $request, Tally $tally, int $number, PatternRules $rules): JsonResponse
    {

        return response()->json(
            $rules->of($tally, $tally->patterns()->where('number', $number)->firstOrFail(), $this->mask($request, $tally)),
        );
    }

    /** The row of a key on both sides, although it agrees. */
    public function agreeing(Request $request, Tally $tally, FindAgreeingRow $rows): JsonResponse
    {
        // A cell of a key may begin with a space.
        $sent = FilterRequest::sentIn($request);
        $width = count($tally->summary['madeOf']['keyColumns']);
        $mask = $this->mask($request, $tally);
        $mask->mustAllowKeys();
        $key = array_slice(array_pad(array_values(array_filter((array) ($sent['key'] ?? []), is_string(...))), $width, ''), 0, $width);
        [$answer, $record] = $rows->find($tally, $mask, $key);

        return response()->json([
            ...$answer->progress(),
            'record' => $record === null ? null : RecordResource::make($record)->resolve($request) + ['rulings' => []],
        ]);
    }

    public function keys(Request $request, Tally $tally, FindingPages $pages): JsonResponse
    {

        $this->mask($request, $tally)->mustAllowKeys();

        return response()->json(['items' => $pages->keys($tally, $request->string('find')->toString(), 20)]);
    }

    private function fileName(Tally $tally, Filter $filter): string
    {
        $name = Str::slug($tally->dataset->name)."-tally-{$tally->number}-".($filter->isOfCells ? 'cells' : 'rows');
        if (! $filter->isPlain()) {
            return $name.'-filtered-'.substr($filter->digest(), 0, 8);
        }

        return $filter->number('pattern') !== null
            ? "{$name}-of-pattern-{$filter->number('pattern')}"
            : rtrim("{$name}-{$filter->text('class')}", '-');
    }

    /** @throws ValuesAreMasked if the filter asks for what is masked */
    private function mask(Request $request, Tally $tally, ?Filter $filter = null): Mask
    {
        $mask = $this->masks->forPerson($this->person($request), $tally);
        if ($filter !== null) {
            $mask->mustAllow($filter, $tally);
        }

        return $mask;
    }
}
