<?php

declare(strict_types=1);

namespace App\Adapters\Deliveries;

use App\Models\Delivery;
use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Preparation\Preparation;
use NineTally\Core\Preparation\References;
use NineTally\Core\Preparation\ReferenceShelf;
use NineTally\Core\Preparation\ReferenceTable;
use NineTally\Core\Preparation\Steps\AsMatched;
use NineTally\Core\Preparation\UnusableStep;

/** References that are deliveries of other datasets, prepared as the plan says. */
final readonly class DeliveredReferences implements References
{
    private function __construct(private ReferenceShelf $shelf) {}

    /** @param Preparation $preparation of the side that looks up from them */
    public static function of(
        DeliveryReader $reader,
        MatchedTable $matched,
        PreparationInputs $inputs,
        Preparation $preparation,
        string $folder,
    ): self {
        $deliveries = array_map(
            static fn(int $id): \Closure => static fn(): PartStack => $reader->stack(Delivery::query()->findOrFail($id)),
            $inputs->references,
        );

        $tables = array_map(
            static fn(int $tally): \Closure => static fn(): PartStack => $reader->stackOf([$matched->part($tally)], null),
            $inputs->matched,
        );

        return new self(new ReferenceShelf($deliveries + $tables, $preparation->referenceRules, $folder, $inputs->parameters));
    }

    public function named(string $name): ReferenceTable
    {
        try {
            return $this->shelf->named($name);
        } catch (UnusableStep $problem) {
            $dataset = AsMatched::datasetOf($name);
            throw ! str_starts_with($problem->getMessage(), 'There is no reference "')
                ? $problem
                : UnusableStep::because($dataset === null
                    ? sprintf('There is no reference "%s". Add a dataset of this name to the migration and deliver it.', $name)
                    : sprintf('"%s" has matched nothing yet: there is no tally of a dataset of this name. Tally it first.', $dataset));
        }
    }

    public function ledgers(): array
    {
        return $this->shelf->ledgers();
    }
}
