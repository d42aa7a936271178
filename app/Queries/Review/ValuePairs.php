<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\DatabaseRow;
use App\Models\Pattern;
use App\Models\Tally;
use App\Rulings\FindingSet\Filter;
use App\Rulings\FindingSet\FilteredFindings;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;

/** Which values became which in a pattern, the most frequent first: few of them can be named in a rule or in a ruling. */
final readonly class ValuePairs
{
    private const LISTED = 20;

    /** Cells that are looked at at most, so that no pattern is too large to ask about. */
    private const CELLS = 200_000;

    public function __construct(private Connection $database, private FilteredFindings $findings) {}

    /**
     * @param  Filter|null  $filter  of cells of the pattern; null for all of them
     * @return array{items: list<array{source: string, target: string, cells: int}>, isAll: bool, cellsRead: int}
     */
    public function of(Tally $tally, Pattern $pattern, ?Filter $filter = null, int $most = self::LISTED): array
    {
        $cells = $this->cells($tally, $filter ?? Filter::ofPattern($pattern->number));
        $pairs = $this->database->query()->fromSub($cells, 'cells')
            ->groupBy('source_value', 'target_value')
            ->orderByDesc('cells')->orderBy('source_value')->orderBy('target_value')
            ->select(['source_value', 'target_value'])
            ->selectRaw('count(*) AS cells, (sum(count(*)) OVER ())::bigint AS looked_at')
            ->limit($most + 1)->get();
        $first = $pairs->first();
        $cellsRead = $first instanceof \stdClass ? DatabaseRow::of($first)->int('looked_at') : 0;
        $items = array_map(static function (\stdClass $fields): array {
            $row = DatabaseRow::of($fields);

            return ['source' => $row->text('source_value'), 'target' => $row->text('target_value'), 'cells' => $row->int('cells')];
        }, array_slice(array_values($pairs->all()), 0, $most));

        return [
            'items' => $items,
            'isAll' => $pairs->count() <= $most && $cellsRead < self::CELLS,
            'cellsRead' => $cellsRead,
        ];
    }

    private function cells(Tally $tally, Filter $filter): Builder
    {
        $branches = array_map(
            static fn(Builder $branch): Builder => $branch->select(['f.sequence', 'f.source_value', 'f.target_value']),
            $this->findings->branches($tally, $filter),
        );
        $cells = array_shift($branches);
        foreach ($branches as $branch) {
            $cells->union($branch);
        }

        return $cells->limit(self::CELLS);
    }
}
