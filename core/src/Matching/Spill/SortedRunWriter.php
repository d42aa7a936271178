<?php

declare(strict_types=1);

namespace NineTally\Core\Matching\Spill;

use NineTally\Core\Intake\Batch;

/** Writes sorted runs of keys, each with a value, one behind the other into a file; {@see SortedRuns} reads them merged. */
final class SortedRunWriter
{
    private int $written = 0;

    private ?AtomicFile $file = null;

    public function __construct(private readonly string $path) {}

    /**
     * @param  array<array-key, string>  $values  by key; no value holds the byte that ends a cell, and neither that which ends a row
     * @return array{offset: int, bytes: int} where the run stands in the file
     */
    public function write(array $values): array
    {
        ksort($values, SORT_STRING);
        $run = '';
        foreach ($values as $key => $value) {
            $run .= $key.Batch::CELL_END.$value.Batch::ROW_END;
        }
        $this->file ??= new AtomicFile($this->path);
        $this->file->write($run);
        $place = ['offset' => $this->written, 'bytes' => strlen($run)];
        $this->written += strlen($run);

        return $place;
    }

    public function finish(): void
    {
        $this->file?->finish();
    }
}
