<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\CopyText;
use App\Adapters\Database\DatabaseRow;
use App\Rulings\FindingGroup;
use Illuminate\Database\Connection;
use NineTally\Core\Comparison\RowClass;

/**
 * What a tally took over of rulings on an earlier one. Asked for by itself: joined to findings, it doubles the time the database takes to
 * plan a page.
 */
final readonly class CarriedRulings
{
    public function __construct(private Connection $database) {}

    /**
     * @param  array<int, string>  $groups  of the findings, by their sequence: all cells, or all rows
     * @return array<int, CarriedRuling> by sequence; of findings for which nothing was taken over, nothing
     */
    public function of(int $tallyId, array $groups): array
    {
        // A changed row is ruled on by its cells.
        $groups = array_diff($groups, [FindingGroup::ofClass(RowClass::Changed)->name()]);
        $found =
            $groups === []
                ? []
                : DatabaseRow::all(
                    $this->database,
                    <<<'SQL'
                    SELECT c.sequence, t.number AS tally, c.decision, r.reason, u.name AS by, c.is_changed::int AS is_changed,
                        c.is_beyond::int AS is_beyond
                    FROM unnest(?::bigint[], ?::text[]) AS f (sequence, "group") JOIN carried_rulings c ON c.tally_id = ?
                        AND c."group" = f."group" AND c.sequence = f.sequence
                        JOIN rulings r ON r.id = c.ruling_id JOIN tallies t ON t.id = r.tally_id JOIN users u ON u.id = r.user_id
                    SQL
                    ,
                    [CopyText::list(array_keys($groups)), CopyText::list(array_values($groups)), $tallyId],
                );
        $earlier = [];
        foreach ($found as $row) {
            $earlier[$row->int('sequence')] = CarriedRuling::fromDatabase($row);
        }

        return $earlier;
    }
}
