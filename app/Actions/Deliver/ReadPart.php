<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Models\Receipt;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Row\RefusedRecord;

/** A received file that has been read to its end. */
final readonly class ReadPart
{
    /** @param list<RefusedRecord> $refused */
    public function __construct(public Receipt $receipt, public string $origin, public Reader $reader, public int $read, public array $refused) {}
}
