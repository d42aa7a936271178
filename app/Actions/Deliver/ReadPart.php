<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Models\Receipt;
use NineTally\Core\Intake\HashTotals;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Intake\Trailer;
use NineTally\Core\Row\RefusedRecord;

/** A received file that has been read to its end. */
final readonly class ReadPart
{
    /**
     * @param  list<RefusedRecord>  $refused
     * @param  Trailer|null  $trailer  where the deliverer's figures are to be taken from it
     */
    public function __construct(
        public Receipt $receipt,
        public string $label,
        public Reader $reader,
        public int $read,
        public array $refused,
        public HashTotals $totals,
        public ?Trailer $trailer,
    ) {}

    public function delivered(): int
    {
        return $this->read - count($this->refused);
    }
}
