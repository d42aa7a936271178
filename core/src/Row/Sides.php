<?php

declare(strict_types=1);

namespace NineTally\Core\Row;

/**
 * What exists once for each side.
 *
 * @template-covariant T
 */
final readonly class Sides
{
    /**
     * @param  T  $source
     * @param  T  $target
     */
    public function __construct(public mixed $source, public mixed $target) {}

    /**
     * @template U
     *
     * @param  callable(Side): U  $make
     * @return self<U>
     */
    public static function each(callable $make): self
    {
        return new self($make(Side::Source), $make(Side::Target));
    }

    /** @return T */
    public function of(Side $side): mixed
    {
        return $side === Side::Source ? $this->source : $this->target;
    }

    /**
     * @template U
     *
     * @param  callable(T): U  $make
     * @return self<U>
     */
    public function map(callable $make): self
    {
        return new self($make($this->source), $make($this->target));
    }

    /** @return array{T, T} the source first */
    public function both(): array
    {
        return [$this->source, $this->target];
    }

    /** @return array{source: T, target: T} by the name of the side */
    public function named(): array
    {
        return ['source' => $this->source, 'target' => $this->target];
    }
}
