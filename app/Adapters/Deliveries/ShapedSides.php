<?php

declare(strict_types=1);

namespace App\Adapters\Deliveries;

use App\Models\Delivery;
use App\Models\DeliveryPart;
use NineTally\Core\Intake\PartKind;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Shape\References;
use NineTally\Core\Shape\Shape;
use NineTally\Core\Shape\ShapedReader;
use NineTally\Core\Shape\ShapedSide;
use NineTally\Core\Tally\EngineVersion;

/** Sides as they are when their steps have run, kept by the hashes of delivery and steps, so that nothing is computed twice. */
final readonly class ShapedSides
{
    private const SECONDS_BETWEEN_MARKS = 3_600;

    public function __construct(private DeliveryReader $reader, private string $folder) {}

    /**
     * The side as the engine reads it: the delivered file itself where it is one of delimited text and there are no steps.
     *
     * @param  (callable(int, int): void)|null  $onProgress  told bytes and records read while the side is shaped
     *
     * @throws \NineTally\Core\NineTallyException
     */
    public function reader(Delivery $delivery, SideRules $rules, ShapeInputs $inputs, ?callable $onProgress = null): Reader
    {
        if ($this->isReadAsDelivered($delivery, $rules)) {
            return $this->reader->openPart($delivery->parts->firstOrFail());
        }
        $side = $this->of($delivery, $rules, $inputs);
        if (! $side->isWhole()) {
            $side->make($this->reader->stack($delivery), $rules->shape, $delivery->side->value, $onProgress ?? static fn(int $bytes, int $records) => null, $this->references($inputs, $rules->shape, $side->path('')), $inputs->parameters);
        }

        return new ShapedReader($side, $delivery->file_name);
    }

    public function isReadAsDelivered(Delivery $delivery, SideRules $rules): bool
    {
        return $rules->shape->isEmpty() && $delivery->parts->count() === 1 && $delivery->origin_column === null && $delivery->parts->firstOrFail()->partFormat()->kind === PartKind::Delimited;
    }

    /** The side where it is kept; it may not have been made yet. */
    public function of(Delivery $delivery, SideRules $rules, ShapeInputs $inputs): ShapedSide
    {
        $digest = hash('sha256', json_encode([$this->digestOf($delivery), $rules->shape->digest(), $inputs->of($rules), EngineVersion::all(), ShapedSide::FORMAT], JSON_THROW_ON_ERROR));

        $folder = "{$this->folder}/{$digest}";
        if (is_dir($folder) && (int) @filemtime($folder) < time() - self::SECONDS_BETWEEN_MARKS) {
            @touch($folder);
        }

        return ShapedSide::in($folder);
    }

    /** One for all deliveries that hold the same rows. */
    public function digestOf(Delivery $delivery): string
    {
        return hash('sha256', json_encode([$delivery->origin_column, $delivery->parts->map(static fn(DeliveryPart $part): array => [$part->digest, $part->partFormat()->toArray(), $part->origin])->all()], JSON_THROW_ON_ERROR));
    }

    /** @param string $folder for rows that the steps of a reference write aside */
    public function references(ShapeInputs $inputs, Shape $shape, string $folder): References
    {
        return DeliveredReferences::of($this->reader, $inputs, $shape, $folder);
    }

    /**
     * Removes what nobody has used for long: a side can be shaped again from its delivery at any time.
     *
     * @return int folders removed
     */
    public function clearUp(int $unusedSeconds): int
    {
        $removed = 0;
        foreach (glob("{$this->folder}/*", GLOB_ONLYDIR) ?: [] as $folder) {
            // The mark of use is the time of the folder, which of() sets.
            if ((int) @filemtime($folder) < time() - $unusedSeconds) {
                array_map(unlink(...), array_filter(glob("{$folder}/*") ?: [], is_file(...)));
                $removed += @rmdir($folder) ? 1 : 0;
            }
        }

        return $removed;
    }

    public function folder(): string
    {
        return $this->folder;
    }
}
