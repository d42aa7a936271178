<?php

declare(strict_types=1);

namespace Database\Demo;

/** A difference that the generator makes on purpose: in how many rows, in which column, and why, by the words of the product. */
final readonly class Planted
{
    /**
     * @param  string  $column  name of the source column
     * @param  string  $cause  its true cause, also where the catalogue does not know it yet
     * @param  \Closure(string, int): array{string, string}  $alter  from the true value and a counter to source and target value
     */
    public function __construct(
        public string $column,
        public string $class,
        public string $cause,
        public int $count,
        public \Closure $alter,
        public ?string $swappedWith = null,
    ) {}

    /** The target holds the values of two columns the wrong way round: two cells differ in each row. */
    public static function swapped(string $column, string $other, int $count): self
    {
        return new self($column, 'changed', 'moved', $count, static fn(string $value): array => [$value, $value], $other);
    }

    /** @param \Closure(string, int): string $target */
    public static function inTarget(string $column, string $cause, int $count, \Closure $target): self
    {
        return new self($column, 'changed', $cause, $count, static fn(string $value, int $nth): array => [$value, $target($value, $nth)]);
    }

    /** @param list<array{string, string}> $pairs source and target values, taken in turn */
    public static function pairs(string $column, string $class, string $cause, int $count, array $pairs): self
    {
        return new self($column, $class, $cause, $count, static fn(string $value, int $nth): array => $pairs[$nth % count($pairs)]);
    }
}
