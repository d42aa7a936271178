<?php

declare(strict_types=1);

namespace NineTally\Core\Comparison;

use NineTally\Core\Value\Decimal;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Moment;
use NineTally\Core\Value\Reading;

/** The two cells that a column pair brings together, and what each side reads in them. Numbers and moments are read when asked for. */
final class CellPair
{
    private Decimal|false|null $sourceNumber = false;

    private Decimal|false|null $targetNumber = false;

    /** @var array{Moment|null, Moment|null}|null */
    private ?array $moments = null;

    public function __construct(
        public readonly string $source,
        public readonly string $target,
        public readonly Reading $sourceReading = new Reading,
        public readonly Reading $targetReading = new Reading,
    ) {}

    public function with(string $source, string $target): self
    {
        return new self($source, $target, $this->sourceReading, $this->targetReading);
    }

    public function kind(): Kind
    {
        return $this->sourceReading->kind;
    }

    public function isBlankInSource(): bool
    {
        return $this->sourceReading->isBlank($this->source);
    }

    public function isBlankInTarget(): bool
    {
        return $this->targetReading->isBlank($this->target);
    }

    /** @return array{Decimal, Decimal}|null null unless both are numbers */
    public function numbers(): ?array
    {
        if ($this->sourceNumber === false) {
            $this->sourceNumber = $this->sourceReading->number($this->source);
        }
        if ($this->sourceNumber === null) {
            return null;
        }
        if ($this->targetNumber === false) {
            $this->targetNumber = $this->targetReading->number($this->target);
        }

        return $this->targetNumber === null ? null : [$this->sourceNumber, $this->targetNumber];
    }

    /** @return array{Moment, Moment}|null null unless both are days or times */
    public function moments(): ?array
    {
        $this->moments ??= $this->readMoments();
        [$source, $target] = $this->moments;

        return $source === null || $target === null ? null : [$source, $target];
    }

    /** @return array{Moment|null, Moment|null} */
    private function readMoments(): array
    {
        return [$this->sourceReading->moment($this->source), $this->targetReading->moment($this->target)];
    }
}
