<?php

declare(strict_types=1);

namespace App\Adapters;

use App\Models\Delivery;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Shape\References;
use NineTally\Core\Shape\ReferenceTable;
use NineTally\Core\Shape\UnusableStep;

/** References that are deliveries of other datasets. */
final readonly class DeliveredReferences implements References
{
    /** @param array<string, int> $deliveries name => delivery */
    public function __construct(private DeliveryReader $reader, private array $deliveries) {}

    public function named(string $name): ReferenceTable
    {
        $delivery = isset($this->deliveries[$name]) ? Delivery::query()->find($this->deliveries[$name]) : null;
        if ($delivery === null) {
            throw UnusableStep::because(sprintf('There is no reference "%s". Add a dataset of this name to the migration and deliver it.', $name));
        }
        $stack = $this->reader->stack($delivery);
        $rows = static function () use ($stack): \Generator {
            foreach ($stack->records() as $record) {
                if (! $record instanceof RefusedRecord) {
                    yield $record;
                }
            }
        };

        return ReferenceTable::of($name, $stack->columns, $rows());
    }
}
