<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

use NineTally\Core\Row\Columns;
use NineTally\Core\Row\RecordPlace;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Row;

/** Reads a part of a delivery as a stream, whatever its format. */
interface Reader
{
    public function columns(): Columns;

    /** The file as the person knows it. */
    public function name(): string;

    /** Size of the file, for progress. */
    public function bytes(): int;

    /**
     * Rows and refused records in the order of the file.
     *
     * @param  (callable(int): void)|null  $onBytes  told after each block where in the file reading stands
     * @return \Generator<int, Row|RefusedRecord>
     *
     * @throws UnreadableFile when a quote is never closed, or the file breaks off
     */
    public function records(?callable $onBytes = null): \Generator;

    /**
     * The same, with rows as bytes, many at a time. Lines are counted from the beginning of the range.
     *
     * @param  (callable(int): void)|null  $onBytes
     * @return \Generator<int, Batch|RefusedRecord, mixed, int> returns the physical lines of the range
     *
     * @throws UnreadableFile
     */
    public function batches(ByteRange $range = new ByteRange, ?callable $onBytes = null): \Generator;

    /**
     * Divides the file for several workers, where that is possible.
     *
     * @param  int  $bytes  about how long a range should be
     * @return non-empty-list<ByteRange>
     */
    public function ranges(int $bytes): array;

    /** @param int $line as records() and batches() give it */
    public function place(int $line): RecordPlace;
}
