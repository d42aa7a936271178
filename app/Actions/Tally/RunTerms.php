<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Adapters\Deliveries\PreparationInputs;
use App\Models\PlanVersion;

/** All that a run is made of: the same terms give the same tally. */
final readonly class RunTerms
{
    /** @param string|null $name what its tally shall be called */
    public function __construct(
        public PlanVersion $planVersion,
        public int $sourceDelivery,
        public int $targetDelivery,
        public PreparationInputs $inputs,
        public ?string $name = null,
    ) {}
}
