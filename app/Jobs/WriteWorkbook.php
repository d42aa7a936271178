<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Models\Workbook;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Writes a workbook that somebody asked for. Run again it begins anew, unless it is there, or nobody waits for it. */
abstract class WriteWorkbook implements ShouldQueue
{
    use Queueable;

    public int $tries = 3;

    public int $timeout = 3600;

    public function __construct(protected string $workbookId) {}

    protected function workbook(): ?Workbook
    {
        return Workbook::query()->where('state', 'asked')->find($this->workbookId);
    }

    public function failed(): void
    {
        Workbook::query()
            ->whereKey($this->workbookId)
            ->where('state', 'asked')
            ->update([
                'state' => 'failed',
                'problem' =>
                    'The workbook could not be written to its end. Ask for it again; if that does not help, ask whoever runs Nine Tally '.
                        'to look at the free disk space.',
            ]);
    }
}
