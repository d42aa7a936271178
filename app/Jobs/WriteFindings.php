<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Adapters\Storage\WorkbookFiles;
use App\Models\Tally;
use App\Models\User;
use App\Problems\ValuesAreMasked;
use App\Queries\Review\FindingPages;
use App\Queries\Review\Masks;
use App\Queries\TakeAway\FindingTables;
use App\Queries\TakeAway\TableText;
use App\Rulings\FindingSet\Filter;

/** The findings of a filter as a workbook. */
final class WriteFindings extends WriteWorkbook
{
    /** @param list<string> $beside names of columns that were added on the screen */
    public function __construct(
        string $workbookId,
        private readonly int $tallyId,
        private readonly Filter $filter,
        private readonly int $personId,
        private readonly array $beside = [],
    ) {
        parent::__construct($workbookId);
    }

    public function handle(WorkbookFiles $files, FindingTables $tables, FindingPages $pages, Masks $masks): void
    {
        $workbook = $this->workbook();
        if ($workbook === null) {
            return;
        }
        $tally = Tally::query()->with('planVersion')->findOrFail($this->tallyId);
        // What is masked for the person now is masked, whatever was shown when it was asked for.
        $mask = $masks->forPerson(User::query()->findOrFail($this->personId), $tally);
        try {
            $mask->mustAllow($this->filter, $tally);
        } catch (ValuesAreMasked $masked) {
            $files->fail($workbook, $masked->getMessage());

            return;
        }
        $table = $tables->of($tally, $mask, $this->filter, $this->beside);
        $files->write(
            $workbook,
            TableText::names($table),
            $table->lines(),
            $pages->count($tally, $this->filter),
        );
    }
}
