<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\DatabaseRow;
use App\Models\Pattern;
use Illuminate\Database\Connection;

/** Which values became which in a pattern, the most frequent first: few of them can be named in a rule or in a ruling. */
final readonly class ValuePairs
{
    private const LISTED = 20;

    /** Cells that are looked at: the first of the pattern, so that no pattern is too large to ask about. */
    private const CELLS = 200_000;

    public function __construct(private Connection $database) {}

    /** @return array{items: list<array{source: string, target: string, cells: int}>, isAll: bool, cellsRead: int} */
    public function of(Pattern $pattern, int $most = self::LISTED): array
    {
        $pairs = $this->database->table('cell_findings')
            ->where('tally_id', $pattern->tally_id)->where('pattern_number', $pattern->number)->where('pattern_ordinal', '<=', self::CELLS)
            ->groupBy('source_value', 'target_value')
            ->orderByDesc('cells')->orderBy('source_value')->orderBy('target_value')
            ->limit($most + 1)
            ->select(['source_value', 'target_value'])->selectRaw('count(*) AS cells')->get();
        $items = array_map(static function (\stdClass $fields): array {
            $row = DatabaseRow::of($fields);

            return ['source' => $row->text('source_value'), 'target' => $row->text('target_value'), 'cells' => $row->int('cells')];
        }, array_slice(array_values($pairs->all()), 0, $most));

        return [
            'items' => $items,
            'isAll' => $pairs->count() <= $most && $pattern->cells <= self::CELLS,
            'cellsRead' => min($pattern->cells, self::CELLS),
        ];
    }
}
