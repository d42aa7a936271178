<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Actions\Review\ListRows;
use App\Adapters\Storage\WorkbookFiles;
use App\Models\Dataset;
use App\Models\User;
use App\Queries\Review\ListedLines;

/**
 * A list of rows as a workbook.
 *
 * @phpstan-import-type Asked from ListRows
 */
final class WriteRowList extends WriteWorkbook
{
    /** @param Asked $asked */
    public function __construct(
        string $workbookId,
        private readonly int $datasetId,
        private readonly array $asked,
        private readonly int $personId,
    ) {
        parent::__construct($workbookId);
    }

    public function handle(WorkbookFiles $files, ListRows $list, ListedLines $lines): void
    {
        $workbook = $this->workbook();
        if ($workbook === null) {
            return;
        }
        $dataset = Dataset::query()->with('migration')->findOrFail($this->datasetId);
        [$question] = $list->question($dataset, $this->asked);
        // What is masked for the person now is masked, whatever was shown when it was asked for.
        $mask = $list->mask($dataset, $question, $this->asked, User::query()->findOrFail($this->personId));
        $files->write($workbook, $lines->header($question), $lines->cells($question, $mask), 0);
    }
}
