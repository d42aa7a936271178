<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Adapters\Storage\WorkbookFiles;
use App\Models\Tally;
use App\Queries\Sign\ReportTables;
use App\Queries\TakeAway\Table;
use App\Queries\TakeAway\TableText;

/** The report of a tally as a workbook: a sheet for each of its tables. */
final class WriteReportWorkbook extends WriteWorkbook
{
    public function __construct(string $workbookId, private readonly int $tallyId)
    {
        parent::__construct($workbookId);
    }

    public function handle(WorkbookFiles $files, ReportTables $tables): void
    {
        $workbook = $this->workbook();
        if ($workbook !== null) {
            $files->writeSheets(
                $workbook,
                array_map(
                    static fn(Table $table): array => ['header' => TableText::names($table), 'rows' => $table->lines()],
                    $tables->of(Tally::query()->findOrFail($this->tallyId)),
                ),
            );
        }
    }
}
