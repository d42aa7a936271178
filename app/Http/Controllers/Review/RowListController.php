<?php

declare(strict_types=1);

namespace App\Http\Controllers\Review;

use App\Actions\Review\ListRows;
use App\Http\Controllers\Controller;
use App\Http\Resources\WorkbookResource;
use App\Jobs\WriteRowList;
use App\Models\Dataset;
use App\Models\Workbook;
use App\Queries\Review\ListedLines;
use App\Questions\RowsListed;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Str;
use Illuminate\Validation\Rule;
use NineTally\Core\Value\Kind;
use Symfony\Component\HttpFoundation\StreamedResponse;

/**
 * Rows that one side has alone, or both have.
 *
 * @phpstan-import-type Asked from ListRows
 * @phpstan-import-type LookUp from ListRows
 */
final class RowListController extends Controller
{
    public function __construct(private readonly ListRows $list) {}

    public function look(Request $request, Dataset $dataset): JsonResponse
    {
        return response()->json(($this->list)($dataset, self::asked($request), $this->person($request)));
    }

    /** All of them as CSV or JSON Lines, written while it is sent. */
    public function take(Request $request, Dataset $dataset, ListedLines $lines): StreamedResponse
    {
        $asked = self::asked($request);
        [$question] = $this->list->question($dataset, $asked);
        $mask = $this->list->mask($dataset, $question, $asked, $this->person($request));
        $asLines = $request->string('as')->toString() === 'json-lines';

        return response()->streamDownload(
            static function () use ($lines, $question, $mask, $asLines): void {
                foreach ($lines->inBlocks($question, $mask, $asLines) as $bytes) {
                    echo $bytes;
                    flush();
                }
            },
            self::fileName($dataset, $asked, $asLines ? 'jsonl' : 'csv'),
            ['Content-Type' => $asLines ? 'application/jsonl' : 'text/csv; charset=UTF-8'],
        );
    }

    /** Has them written as a workbook. */
    public function askForWorkbook(Request $request, Dataset $dataset): JsonResponse
    {
        $asked = self::asked($request);
        $workbook = Workbook::askFor($this->person($request), $dataset->id, self::fileName($dataset, $asked, 'xlsx'));
        WriteRowList::dispatch($workbook->id, $dataset->id, $asked, $this->person($request)->id);

        return response()->json(WorkbookResource::make($workbook)->resolve($request), Response::HTTP_ACCEPTED);
    }

    /** @param Asked $asked */
    private static function fileName(Dataset $dataset, array $asked, string $ending): string
    {
        return Str::slug($dataset->name)."-{$asked['which']}-rows.{$ending}";
    }

    /** @return Asked */
    private static function asked(Request $request): array
    {
        // A link has no body: there it is a parameter of the address.
        $linked = json_decode($request->query('asked') === null ? '{}' : (string) $request->string('asked'), true);
        $request->merge(is_array($linked) ? $linked : []);
        /**
         * @var array{which: 'source'|'target'|'either'|'both'|'all', columns?: list<string>, by?: list<string>, lookUps?: list<LookUp>,
         *     span?: array{column: string, kind: string}|null} $asked
         */
        $asked = $request->validate([
            'which' => ['required', Rule::in(RowsListed::WHICH)],
            'columns' => ['array', 'max:200'],
            'columns.*' => ['string', 'max:1000'],
            'by' => ['array', 'max:20'],
            'by.*' => ['string', 'max:1000'],
            'span' => ['nullable', 'array:column,kind'],
            'span.column' => ['required_with:span', 'string', 'max:1000'],
            'span.kind' => ['required_with:span', Rule::enum(Kind::class)],
            'lookUps' => ['array', 'max:3'],
            'lookUps.*' => ['array:reference,on,take,forgives'],
            'lookUps.*.reference' => ['required', 'string', 'max:200', 'distinct'],
            'lookUps.*.on' => ['required', 'array', 'max:5'],
            'lookUps.*.on.*' => ['array:column,reference'],
            'lookUps.*.on.*.column' => ['required', 'string', 'max:1000'],
            'lookUps.*.on.*.reference' => ['required', 'string', 'max:1000'],
            'lookUps.*.take' => ['required', 'array', 'max:20'],
            'lookUps.*.take.*' => ['required', 'string', 'max:1000'],
            'lookUps.*.forgives' => ['array'],
            'lookUps.*.forgives.*' => ['string', 'max:40'],
        ]);

        return [
            'which' => $asked['which'],
            'columns' => $asked['columns'] ?? [],
            'by' => $asked['by'] ?? [],
            'lookUps' => $asked['lookUps'] ?? [],
            'span' => $asked['span'] ?? null,
        ];
    }
}
