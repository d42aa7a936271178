<?php

declare(strict_types=1);

namespace App\Adapters\Deliveries;

use App\Models\Delivery;
use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Row\Side;
use NineTally\Core\Totals\DeliveredSource;

/** Both sides before any step, for totals over what was delivered. */
final readonly class DeliveriesAsTheyCame implements DeliveredSource
{
    /** @param array{source: Delivery, target: Delivery} $deliveries */
    public function __construct(private DeliveryReader $reader, private array $deliveries) {}

    public function delivered(Side $side): PartStack
    {
        return $this->reader->stack($this->deliveries[$side->value]);
    }
}
