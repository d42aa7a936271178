<?php

declare(strict_types=1);

namespace App\Questions;

use App\Adapters\Database\DatabaseRow;
use Illuminate\Database\Connection;
use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Tally\PlanComparisons;

/**
 * Cells that differed in one tally and do not in a later one, where both the plan and the deliveries are others: the values of then are
 * held
 * against the rules of now. What these let pass is settled by the plan, for it would be so with the old deliveries too.
 */
final readonly class SettledCells
{
    private const AT_ONCE = 5_000;

    public function __construct(private Connection $database) {}

    /** @return array<int, int> by pattern of the earlier tally: how many of its settled cells the rules of a plan let pass */
    public function letPassBy(Plan $plan, int $earlier, int $later): array
    {
        $comparisons = [];
        $rules = new PlanComparisons($plan);
        foreach ($plan->columnPairs as $pair) {
            $comparisons[$pair->source] = $rules->ofPair($pair);
        }
        $passed = [];
        $this->database->transaction(function () use ($earlier, $later, $comparisons, &$passed): void {
            // What declares a cursor takes no parameters: these are two numbers.
            $this->database->statement(<<<SQL
                DECLARE settled NO SCROLL CURSOR FOR
                SELECT p.source_column AS "column", o.pattern_number, o.source_value, o.target_value, count(*) AS cells
                FROM cell_findings o JOIN patterns p ON p.tally_id = o.tally_id AND p.number = o.pattern_number
                WHERE o.tally_id = {$earlier} AND NOT EXISTS (SELECT 1 FROM cell_findings n WHERE n.tally_id = {$later}
                    AND n.identity = o.identity)
                GROUP BY 1, 2, 3, 4
                SQL);
            while (($rows = DatabaseRow::all($this->database, 'FETCH '.self::AT_ONCE.' FROM settled', [])) !== []) {
                foreach ($rows as $row) {
                    $judgement = ($comparisons[$row->text('column')] ?? null)?->classify(
                        $row->text('source_value'),
                        $row->text('target_value'),
                    );
                    if ($judgement !== null && in_array($judgement->class, [CellClass::Identical, CellClass::Forgiven], true)) {
                        $pattern = $row->int('pattern_number');
                        $passed[$pattern] = ($passed[$pattern] ?? 0) + $row->int('cells');
                    }
                }
            }
            $this->database->statement('CLOSE settled');
        });

        return $passed;
    }
}
