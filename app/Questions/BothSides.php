<?php

declare(strict_types=1);

namespace App\Questions;

use App\Adapters\Deliveries\PreparationInputs;
use App\Adapters\Deliveries\PreparedSides;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\PlanDraft;
use App\Models\Run;
use App\Models\Tally;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Preparation\Preparation;
use NineTally\Core\Preparation\StepCatalogue;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/**
 * Two deliveries and the steps that prepare them: what a question about both sides is about.
 *
 * @phpstan-import-type StepDocument from StepCatalogue
 */
final readonly class BothSides
{
    private function __construct(
        private int $sourceDelivery,
        private int $targetDelivery,
        private SideRules $source,
        private SideRules $target,
        private PreparationInputs $inputs,
    ) {}

    /**
     * The latest deliveries of a dataset with the steps of its draft; null while a side has delivered nothing.
     *
     * @param  Sides<list<StepDocument>>|null  $further  steps that run behind those
     * @param  bool  $isPrepared  else none of the draft's steps run
     */
    public static function of(Dataset $dataset, ?Sides $further = null, bool $isPrepared = true): ?self
    {
        $source = $dataset->latestDelivery(Side::Source);
        $target = $dataset->latestDelivery(Side::Target);
        if ($source === null || $target === null) {
            return null;
        }
        $draft = $dataset->draftNow();
        [$ofSource, $ofTarget] = Sides::each(static fn(Side $side): SideRules => new SideRules(
            preparation: self::steps($draft, $side, $isPrepared)->followedBy($further?->of($side) ?? []),
        ))->both();

        return new self($source->id, $target->id, $ofSource, $ofTarget, PreparationInputs::now($dataset, $ofSource, $ofTarget));
    }

    private static function steps(?PlanDraft $draft, Side $side, bool $isPrepared): Preparation
    {
        $preparation = $draft?->rules($side)->preparation ?? new Preparation;

        return $isPrepared ? $preparation : new Preparation([], $preparation->declared);
    }

    /** As they were when they were tallied. */
    public static function ofTally(Tally $tally): self
    {
        $plan = $tally->planVersion->plan();
        $run = Run::query()->findOrFail($tally->run_id);

        return new self(
            $tally->source_delivery_id,
            $tally->target_delivery_id,
            new SideRules(preparation: $plan->source->preparation),
            new SideRules(preparation: $plan->target->preparation),
            PreparationInputs::ofRun($run),
        );
    }

    /** @return array<array-key, mixed> */
    public function about(): array
    {
        return [
            $this->sourceDelivery,
            $this->source->preparation->digest(),
            $this->inputs->of($this->source),
            $this->targetDelivery,
            $this->target->preparation->digest(),
            $this->inputs->of($this->target),
        ];
    }

    public function delivery(Side $side): Delivery
    {
        return Delivery::query()->findOrFail($side === Side::Source ? $this->sourceDelivery : $this->targetDelivery);
    }

    public function rules(Side $side): SideRules
    {
        return $side === Side::Source ? $this->source : $this->target;
    }

    /** The same with the steps of the source up to one alone. */
    public function beforeStep(?string $step): self
    {
        return new self($this->sourceDelivery, $this->targetDelivery, $this->source->before($step), $this->target, $this->inputs);
    }

    /** All rows of a side after its steps. */
    public function reader(QuestionContext $material, Side $side): Reader
    {
        return $this->prepared($material->sides, $side);
    }

    /** The same for whoever asks no question. */
    public function prepared(PreparedSides $sides, Side $side): Reader
    {
        return $sides->reader($this->delivery($side), $this->rules($side), $this->inputs);
    }
}
