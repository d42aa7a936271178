<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\DatabaseRow;
use App\Models\Tally;
use App\Rulings\FindingSet\Filter;
use Illuminate\Database\Connection;
use NineTally\Core\Comparison\RowClass;

/** The findings on which an act stands, with their identities: by these they are known again in later tallies. */
final readonly class FindingsOfAct
{
    private const PAGE = 5_000;

    public function __construct(private Connection $database, private FindingPages $pages) {}

    /** @return \Generator<string, RulableRow|RulableCell> by identity, as hexadecimal digits; rows first */
    public function of(Tally $tally, int $act, Mask $mask): \Generator
    {
        foreach (['rows', 'cells'] as $of) {
            $filter = Filter::from(['of' => $of, 'act' => $act]);
            $sequence = 0;
            do {
                $found = $this->pages->after($tally, $filter, $mask, $sequence, self::PAGE);
                $sequences = array_map(
                    static fn(RulableRow|RulableCell $one): int => $one instanceof RulableCell ? $one->sequence : $one->finding->sequence,
                    $found,
                );
                $identities = $this->identities($tally, $filter, $sequences);
                foreach ($found as $place => $finding) {
                    $sequence = $sequences[$place];
                    // A changed row is no finding itself: its cells are.
                    if ($finding instanceof RulableCell || $finding->finding->class !== RowClass::Changed) {
                        yield $identities[$sequence] => $finding;
                    }
                }
            } while (count($found) === self::PAGE);
        }
    }

    /**
     * @param  list<int>  $sequences
     * @return array<int, string>
     */
    private function identities(Tally $tally, Filter $filter, array $sequences): array
    {
        $identities = [];
        foreach (
            $this->database
                ->table($filter->isOfCells ? 'cell_findings' : 'row_findings')
                ->where('tally_id', $tally->id)
                ->whereIntegerInRaw('sequence', $sequences)
                ->selectRaw("sequence, encode(identity, 'hex') AS identity")
                ->get()
            as $fields
        ) {
            $row = DatabaseRow::of($fields);
            $identities[$row->int('sequence')] = $row->text('identity');
        }

        return $identities;
    }
}
