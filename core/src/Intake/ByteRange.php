<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

/** A stretch of a file that begins and ends between two records. The first one holds the header. */
final readonly class ByteRange
{
    /** @param int|null $end null: to the end of the file */
    public function __construct(public int $start = 0, public ?int $end = null) {}

    public function isWholeFile(): bool
    {
        return $this->start === 0 && $this->end === null;
    }
}
