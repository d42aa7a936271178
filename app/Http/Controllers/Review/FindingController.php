<?php

declare(strict_types=1);

namespace App\Http\Controllers\Review;

use App\Http\Controllers\Controller;
use App\Http\Resources\CellFindingResource;
use App\Http\Resources\RecordResource;
use App\Http\Resources\RowFindingResource;
use App\Models\Tally;
use App\Queries\Review\CellLine;
use App\Queries\Review\FindingPages;
use App\Queries\Review\Record;
use App\Queries\Review\RowLine;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** Lists answer the findings from an ordinal on ("from"), so that a page begins at any place of the list. */
final class FindingController extends Controller
{
    private const PAGE = 100;

    private const LARGEST_PAGE = 500;

    public function rows(Request $request, Tally $tally, FindingPages $pages): JsonResponse
    {
        $this->allow('view', $tally->migration);
        $class = $request->string('class')->toString();

        return $this->page($request, $pages->rows($tally, $class === '' ? null : $class, $this->from($request), $this->limit($request)), RowFindingResource::class);
    }

    public function cells(Request $request, Tally $tally, int $number, FindingPages $pages): JsonResponse
    {
        $this->allow('view', $tally->migration);

        return $this->page($request, $pages->cells($tally, $number, $this->from($request), $this->limit($request)), CellFindingResource::class);
    }

    public function record(Request $request, Tally $tally, int $sequence, FindingPages $pages): JsonResponse
    {
        $this->allow('view', $tally->migration);

        return response()->json(RecordResource::make(Record::read($pages, $tally, $sequence))->resolve($request));
    }

    public function keys(Request $request, Tally $tally, FindingPages $pages): JsonResponse
    {
        $this->allow('view', $tally->migration);

        return response()->json(['items' => $pages->keys($tally, $request->string('find')->toString(), 20)]);
    }

    /**
     * @param  array{items: list<RowLine|CellLine>, total: int}  $page
     * @param  class-string<RowFindingResource|CellFindingResource>  $resource
     */
    private function page(Request $request, array $page, string $resource): JsonResponse
    {
        $last = end($page['items']);

        return response()->json([
            'items' => $resource::collection($page['items'])->resolve($request),
            'next' => $last !== false && $last->ordinal < $page['total'] ? $last->ordinal + 1 : null,
            'previous' => $this->from($request) > 1 ? max(1, $this->from($request) - $this->limit($request)) : null,
            'total' => $page['total'],
            'totalIsExact' => true,
        ]);
    }

    private function from(Request $request): int
    {
        return max(1, $request->integer('from', 1));
    }

    private function limit(Request $request): int
    {
        return max(1, min(self::LARGEST_PAGE, $request->integer('limit', self::PAGE)));
    }
}
