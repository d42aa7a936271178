<?php

declare(strict_types=1);

namespace App\Adapters\Deliveries;

use App\Models\Delivery;
use NineTally\Core\Shape\PartStack;
use NineTally\Core\Shape\References;
use NineTally\Core\Shape\ReferenceShelf;
use NineTally\Core\Shape\ReferenceTable;
use NineTally\Core\Shape\Shape;
use NineTally\Core\Shape\UnusableStep;

/** References that are deliveries of other datasets, prepared as the plan says. */
final readonly class DeliveredReferences implements References
{
    private function __construct(private ReferenceShelf $shelf) {}

    /** @param Shape $shape of the side that looks up from them */
    public static function of(DeliveryReader $reader, ShapeInputs $inputs, Shape $shape, string $folder): self
    {
        $deliveries = array_map(static fn(int $id): \Closure => static fn(): PartStack => $reader->stack(Delivery::query()->findOrFail($id)), $inputs->references);

        return new self(new ReferenceShelf($deliveries, $shape->referenceRules, $folder, $inputs->parameters));
    }

    public function named(string $name): ReferenceTable
    {
        try {
            return $this->shelf->named($name);
        } catch (UnusableStep $problem) {
            throw str_starts_with($problem->getMessage(), 'There is no reference "') ? UnusableStep::because(sprintf('There is no reference "%s". Add a dataset of this name to the migration and deliver it.', $name)) : $problem;
        }
    }

    public function ledgers(): array
    {
        return $this->shelf->ledgers();
    }
}
