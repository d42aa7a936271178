<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Adapters\Storage\WorkbookFiles;
use App\Models\CorrectionSet;
use App\Models\User;
use App\Queries\Review\CorrectionChecks;
use App\Queries\Review\Masks;
use App\Queries\TakeAway\CorrectionTable;
use App\Queries\TakeAway\TableText;

/** A set of corrections as a workbook. */
final class WriteCorrections extends WriteWorkbook
{
    public function __construct(string $workbookId, private readonly int $setId, private readonly int $personId)
    {
        parent::__construct($workbookId);
    }

    public function handle(WorkbookFiles $files, CorrectionChecks $checks, Masks $masks): void
    {
        $workbook = $this->workbook();
        if ($workbook === null) {
            return;
        }
        $set = CorrectionSet::query()->with(['dataset', 'tally.planVersion'])->findOrFail($this->setId);
        if ($masks->keepsDeliveredFrom(User::query()->findOrFail($this->personId), $set->dataset)) {
            $files->fail($workbook, 'Values of this dataset are masked for you now, and corrections hold them as they are.');

            return;
        }
        $newest = $set->dataset->latestTally()?->load('planVersion') ?? $set->tally;
        $table = new CorrectionTable($set, $newest, $checks);
        $files->write($workbook, TableText::names($table), $table->lines(), $set->lines);
    }
}
