<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Models\Dataset;
use App\Models\Delivery;
use App\Problems\Conflict;
use NineTally\Core\Row\Side;

/** The deliveries that somebody wants to be tallied, by their numbers; the latest where none is named. */
final readonly class ChosenDeliveries
{
    public function __construct(public ?int $source = null, public ?int $target = null) {}

    /** @throws Conflict when the side has no delivery, or none of that number */
    public function of(Dataset $dataset, Side $side): Delivery
    {
        $number = $side === Side::Source ? $this->source : $this->target;
        if ($number === null) {
            return $dataset->latestDelivery($side)
                ?? throw Conflict::because('no-delivery', "The {$side->value} side has no delivery yet. Deliver both sides first.");
        }

        return $dataset->deliveries()->where('side', $side->value)->where('number', $number)->first()
            ?? throw Conflict::because(
                'no-delivery',
                "The {$side->value} side has no delivery {$number}. Deliver shows which there are, under \"See all deliveries\".",
            );
    }
}
