<?php

declare(strict_types=1);

namespace App\Queries\TakeAway;

use App\Models\Tally;
use App\Queries\Review\ActsOfTally;
use App\Queries\Review\AdditionalColumns;
use App\Queries\Review\FindingPages;
use App\Queries\Review\Mask;
use App\Rulings\FindingSet\Filter;

/** The two tables in which findings are taken away: rows, and cells. */
final readonly class FindingTables
{
    public function __construct(private FindingPages $pages, private ActsOfTally $acts, private AdditionalColumns $additional) {}

    /** @param list<string> $beside names of columns that are added to each cell; a row has all of its columns anyway */
    public function of(Tally $tally, Mask $mask, Filter $filter, array $beside = []): Table
    {
        $taken = new TakenTally($tally, $mask, $this->acts);

        return $filter->isOfCells
            ? new CellTable($taken, $filter, $this->pages, $this->additional, $beside)
            : new RowTable($taken, $filter, $this->pages);
    }
}
