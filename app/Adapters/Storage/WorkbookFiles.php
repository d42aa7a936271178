<?php

declare(strict_types=1);

namespace App\Adapters\Storage;

use App\Adapters\Database\Interval;
use App\Models\Workbook;
use NineTally\Core\NineTallyException;

/** Writes the workbooks that people asked for, tells how far they are, and keeps them until they are taken. */
final readonly class WorkbookFiles
{
    private const KEPT_HOURS = 24;

    private const ROWS_BETWEEN_LOOKS = 100;

    /** @param string $workFolder on the same disk as the folder, so that a file is there at once or not at all */
    public function __construct(private string $folder, private string $workFolder, private float $secondsBetweenReports) {}

    public function path(Workbook $workbook): string
    {
        return "{$this->folder}/{$workbook->id}.xlsx";
    }

    /**
     * Writes a workbook, unless nobody waits for it any more.
     *
     * @param  list<string>  $header
     * @param  \Generator<int, list<string|int|float>>|\Generator<int, list<string>>  $rows  the key says how much of the total is done
     *     with the row
     */
    public function write(Workbook $workbook, array $header, \Generator $rows, int $total): void
    {
        is_dir($this->folder) || mkdir($this->folder, 0700, true);
        $file = TextWorkbook::in($this->workFolder, $header);
        try {
            $interval = new Interval($this->secondsBetweenReports);
            $written = 0;
            foreach ($rows as $done => $cells) {
                $file->add($cells);
                if (
                    ++$written % self::ROWS_BETWEEN_LOOKS === 0 &&
                    $interval->isOver() &&
                    ! $this->report($workbook, ['rows' => $written, 'done' => $done, 'total' => $total])
                ) {
                    return;
                }
            }
            // Packing takes a while too, and has no measure of its own.
            if ($this->report($workbook, ['rows' => $written, 'done' => $total, 'total' => $total])) {
                rename($file->finish(), $this->path($workbook));
                $this->report($workbook, ['state' => 'written']) || @unlink($this->path($workbook));
            }
        } catch (NineTallyException $problem) {
            $this->fail($workbook, $problem->getMessage());
        } finally {
            $file->discard();
        }
    }

    /**
     * Writes a workbook of several sheets that are at hand, unless nobody waits for it any more.
     *
     * @param  array<string, array{header: list<string>, rows: iterable<list<string|int|float>>}>  $sheets  by name
     */
    public function writeSheets(Workbook $workbook, array $sheets): void
    {
        is_dir($this->folder) || mkdir($this->folder, 0700, true);
        $file = TextWorkbook::in($this->workFolder, []);
        try {
            $rows = 0;
            foreach ($sheets as $name => ['header' => $header, 'rows' => $lines]) {
                $file->sheet($name, $header);
                foreach ($lines as $cells) {
                    $file->add($cells);
                    $rows++;
                }
            }
            if ($this->report($workbook, ['rows' => $rows, 'done' => 1, 'total' => 1])) {
                rename($file->finish(), $this->path($workbook));
                $this->report($workbook, ['state' => 'written']) || @unlink($this->path($workbook));
            }
        } finally {
            $file->discard();
        }
    }

    public function fail(Workbook $workbook, string $problem): void
    {
        $this->report($workbook, ['state' => 'failed', 'problem' => $problem]);
    }

    public function remove(Workbook $workbook): void
    {
        // The worker sees that it is gone, and stops.
        $workbook->delete();
        @unlink($this->path($workbook));
    }

    /** Removes what nobody took. */
    public function clearUp(): void
    {
        Workbook::query()->where('created_at', '<', now()->subHours(self::KEPT_HOURS))->get()->each($this->remove(...));
    }

    /**
     * @param  array<string, int|string>  $what
     * @return bool whether somebody still waits for it
     */
    private function report(Workbook $workbook, array $what): bool
    {
        return Workbook::query()->whereKey($workbook->id)->where('state', 'asked')->update($what) === 1;
    }
}
