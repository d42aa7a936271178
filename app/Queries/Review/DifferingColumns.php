<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\DatabaseRow;
use App\Models\Tally;
use Illuminate\Database\Connection;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Row\Side;

/** In which columns the changed rows of a page differ. */
final readonly class DifferingColumns
{
    public function __construct(private Connection $database) {}

    /**
     * @param  list<RulableRow>|list<RulableCell>  $findings
     * @return array<int, list<string>> names in the source, in the order of the plan, by the sequence of the row
     */
    public function of(Tally $tally, array $findings): array
    {
        $changed = [];
        foreach ($findings as $finding) {
            if ($finding instanceof RulableRow && $finding->finding->class === RowClass::Changed) {
                $changed[] = $finding->finding->sequence;
            }
        }
        if ($changed === []) {
            return [];
        }
        $names = $tally->planVersion->plan()->pairedNames(Side::Source);
        $columns = [];
        foreach (
            $this->database->table('cell_findings')
                ->where('tally_id', $tally->id)
                ->whereIntegerInRaw('row_sequence', $changed)
                ->orderBy('pair_position')
                ->get(['row_sequence', 'pair_position'])
            as $fields
        ) {
            $row = DatabaseRow::of($fields);
            $columns[$row->int('row_sequence')][] = $names[$row->int('pair_position')] ?? '';
        }

        return $columns;
    }
}
