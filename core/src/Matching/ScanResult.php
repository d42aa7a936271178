<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Totals\GroupFigures;

/** What a scan counted in its range. */
final class ScanResult
{
    public int $read = 0;

    public int $refused = 0;

    /** Refused records that a quote which is never closed holds together to the end of their file. */
    public int $quotesLeftOpen = 0;

    public int $unkeyed = 0;

    public int $partlyBlank = 0;

    /** @var array<int, int> column pair => cells without a value */
    public array $blanks = [];

    /** @var array<int, array<string, GroupFigures>> control total => group => what was taken of it */
    public array $totals = [];

    /** @var list<array{total: int, file: string, offset: int, bytes: int}> runs of distinct values, in a file beside the spill */
    public array $distinct = [];

    /** Physical lines of the range. */
    public int $lines = 0;

    public bool $hasFindings = false;

    /** The file was divided by counting quotes, and that was wrong: see TallyWork::tasksAfterStrayQuotes(). */
    public bool $hasStrayQuotes = false;

    /** @return list<array{path: string, offset: int, bytes: int}> the runs of the distinct values of a control total */
    public function runsOf(int $total, string $folder): array
    {
        $runs = [];
        foreach ($this->distinct as $run) {
            if ($run['total'] === $total) {
                $runs[] = ['path' => "{$folder}/{$run['file']}", 'offset' => $run['offset'], 'bytes' => $run['bytes']];
            }
        }

        return $runs;
    }
}
