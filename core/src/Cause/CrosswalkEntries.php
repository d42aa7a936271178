<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Value\Reading;

/**
 * What must stand in the target where the crosswalk of a pair has an entry for the source's value: byte for byte, else under the forms that
 * the pair forgives.
 */
final readonly class CrosswalkEntries
{
    private CanonicalForm $form;

    /** @var array<string, string> canonical source value => target value */
    private array $byForm;

    public function __construct(private ColumnPair $pair, private Reading $source, FormCombination $forms)
    {
        $this->form = new CanonicalForm($source, $pair->forgives, $forms);
        $byForm = [];
        foreach ($pair->crosswalk as $value => $target) {
            $byForm[$this->form->of((string) $value)] = $target;
        }
        $this->byForm = $byForm;
    }

    /** @return string|null null where the value has no entry */
    public function target(string $source): ?string
    {
        return $this->pair->crosswalk[$source] ?? $this->byForm[$this->form->of($source)] ?? null;
    }

    /** Whether a value needs an entry and has none; a blank cell needs none. */
    public function lacks(string $source): bool
    {
        return $this->pair->crosswalk !== [] && ! $this->source->isBlank($source) && $this->target($source) === null;
    }
}
