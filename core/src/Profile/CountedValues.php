<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

use Random\Engine\Mt19937;
use Random\Randomizer;

/** How often each value and each shape occurs in a column, and some values that show how they lie. */
final class CountedValues
{
    /** Values kept to show how they lie, drawn evenly from all (Vitter 1985, Algorithm R) with a fixed seed. */
    private const SAMPLE = 400;

    private const MOST_FREQUENT = 10;

    private const MOST_SHAPES = 1_000;

    public readonly DistinctCount $distinct;

    /** @var list<string> */
    public array $sample = [];

    private int $seen = 0;

    /** @var array<string, int> */
    private array $shapes = [];

    private readonly Randomizer $random;

    public function __construct(DistinctBudget $budget)
    {
        $this->distinct = new DistinctCount($budget);
        $this->random = new Randomizer(new Mt19937(1));
    }

    /** @param array<string> $values as they stand in the column, one after the other */
    public function draw(array $values): void
    {
        foreach ($values as $value) {
            if (++$this->seen <= self::SAMPLE) {
                $this->sample[] = ValueShape::shortened($value);
            } elseif (($place = $this->random->getInt(1, $this->seen)) <= self::SAMPLE) {
                array_splice($this->sample, $place - 1, 1, [ValueShape::shortened($value)]);
            }
        }
    }

    public function see(string $value, string $shape, int $times): void
    {
        $short = ValueShape::shortened($value);
        $this->distinct->see($short === $value ? $value : $short.'#'.hash('xxh128', $value), $times);
        if (isset($this->shapes[$shape]) || count($this->shapes) < self::MOST_SHAPES) {
            $this->shapes[$shape] = ($this->shapes[$shape] ?? 0) + $times;
        }
    }

    /** @return list<array{value: string, count: int}> */
    public function mostFrequent(): array
    {
        return self::most($this->distinct->values());
    }

    /** @return list<array{shape: string, count: int}> */
    public function shapes(): array
    {
        return array_map(static fn(array $one): array => ['shape' => $one['value'], 'count' => $one['count']], self::most($this->shapes));
    }

    /**
     * @param  array<string, int>  $counts
     * @return list<array{value: string, count: int}> those that occur most
     */
    public static function most(array $counts): array
    {
        arsort($counts);
        $most = array_slice($counts, 0, self::MOST_FREQUENT, true);

        return array_map(
            static fn(int|string $value, int $count): array => ['value' => (string) $value, 'count' => $count],
            array_keys($most),
            $most,
        );
    }
}
