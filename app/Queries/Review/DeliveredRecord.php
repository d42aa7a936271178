<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Deliveries\DeliveryReader;
use App\Models\Delivery;
use App\Models\DeliveryPart;
use App\Models\Tally;
use NineTally\Core\NineTallyException;
use NineTally\Core\Row\RecordPlace;
use NineTally\Core\Row\Side;

/** A row of a finding where it was delivered: the lines around it as their bytes were read, and its cells before any step. */
final readonly class DeliveredRecord
{
    public function __construct(private DeliveryReader $reader) {}

    /**
     * @return array{file: string, part: int, line: int, columns: list<string>, cells: list<string>|null, lines: list<array{line: int,
     *     text: string|null}>, problem: string|null}|null null where the side has no row
     */
    public function of(Tally $tally, Side $side, ?RecordPlace $place): ?array
    {
        if ($place === null) {
            return null;
        }
        $delivery = Delivery::query()
            ->with('parts')
            ->findOrFail($side === Side::Source ? $tally->source_delivery_id : $tally->target_delivery_id);
        $part = $delivery->parts->firstWhere('number', $place->part);
        if (! $part instanceof DeliveryPart) {
            return null;
        }
        try {
            $around = $this->reader->around($part);

            return [
                'file' => $part->file_name,
                'part' => $place->part,
                'line' => $place->line,
                'columns' => $part->columns,
                'cells' => $around->cells($place->line),
                'lines' => $around->line($place->line),
                'problem' => null,
            ];
        } catch (NineTallyException $problem) {
            return [
                'file' => $part->file_name, 'part' => $place->part, 'line' => $place->line, 'columns' => $part->columns, 'cells' => null,
                'lines' => [], 'problem' => $problem->getMessage(),
            ];
        }
    }
}
