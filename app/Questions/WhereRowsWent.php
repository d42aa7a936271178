<?php

declare(strict_types=1);

namespace App\Questions;

use App\Models\Delivery;
use App\Models\Tally;
use NineTally\Core\Landing\SharedDelivery;
use NineTally\Core\Landing\SharedRows;
use NineTally\Core\Row\Side;

/** Which rows of a delivery that several datasets use went into none of them, and which into several: by the newest tally of each. */
final readonly class WhereRowsWent implements Question
{
    /**
     * @param  bool  $byPlace  whether the deliveries are the same bytes
     * @param  non-empty-list<array{name: string, delivery: int, sides: BothSides}>  $uses
     */
    private function __construct(private Side $side, private bool $byPlace, private array $uses) {}

    /** @param non-empty-list<Tally> $tallies */
    public static function of(Side $side, bool $byPlace, array $tallies): self
    {
        return new self($side, $byPlace, array_map(static fn(Tally $tally): array => [
            'name' => $tally->dataset->name,
            'delivery' => $side === Side::Source ? $tally->source_delivery_id : $tally->target_delivery_id,
            'sides' => BothSides::ofTally($tally),
        ], $tallies));
    }

    public function kind(): string
    {
        return 'where-rows-went';
    }

    public function about(): array
    {
        return [
            $this->side->value,
            $this->byPlace,
            array_map(static fn(array $use): array => [$use['name'], $use['delivery'], $use['sides']->about()], $this->uses),
        ];
    }

    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        $deliveries = array_map(fn(array $use): SharedDelivery => new SharedDelivery(
            $use['name'],
            $material->reader->stack(Delivery::query()->with('parts')->findOrFail($use['delivery'])),
            $use['sides']->reader($material, $this->side),
        ), $this->uses);
        $blocks = 0;
        // How often rows are read nobody knows before.
        $shared = $material->withFolder(fn(string $folder): array => SharedRows::of(
            $deliveries,
            $this->byPlace,
            "{$folder}/rows",
            static function () use (&$blocks, $onProgress): void {
                $onProgress(++$blocks, 0);
            },
        ));

        return $shared;
    }
}
