<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

/** The first ledger: records read = refused + delivered. */
final readonly class ReadingLedger
{
    public function __construct(public int $read, public int $refused, public int $delivered) {}
}
