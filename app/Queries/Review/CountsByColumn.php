<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\DatabaseRow;
use App\Models\Tally;
use App\Rulings\FindingSet\CancellableSearch;
use App\Rulings\FindingSet\Filter;
use App\Rulings\FindingSet\FilteredFindings;
use App\Rulings\FindingSet\RowColumn;
use Illuminate\Database\Connection;

/** How many findings of a filter each value of a column has: which basin lost them. The most first. */
final readonly class CountsByColumn
{
    private const LISTED = 50;

    public function __construct(private Connection $database, private FilteredFindings $findings, private CancellableSearch $search) {}

    /** @return array{items: list<array{value: string, findings: int}>, isAll: bool} */
    public function of(Tally $tally, Filter $filter, string $column): array
    {
        $of = RowColumn::of($tally, $column);
        if (! $of->isKnown()) {
            return ['items' => [], 'isAll' => true];
        }
        $found = $this->findings->query($tally, $filter);
        if ($filter->isOfCells) {
            $found = $this->database->table('row_findings AS r')
                ->where('r.tally_id', $tally->id)
                ->joinSub($found->select('f.row_sequence'), 'c', 'c.row_sequence', 'r.sequence');
        }
        $table = $filter->isOfCells ? 'r' : 'f';
        $items = $this->search->replacingPrevious(
            "{$filter->digest()} by column",
            static fn(): array => array_values(
                $found->selectRaw("{$of->sql($table)} AS value, count(*) AS findings")
                    ->groupByRaw('1')->orderByRaw('2 DESC, 1')->limit(self::LISTED + 1)->get()
                    ->map(static fn(\stdClass $row): array => [
                        'value' => mb_substr(DatabaseRow::of($row)->text('value'), 0, 200),
                        'findings' => DatabaseRow::of($row)->int('findings'),
                    ])->all(),
            ),
        );

        return ['items' => array_slice($items, 0, self::LISTED), 'isAll' => count($items) <= self::LISTED];
    }
}
