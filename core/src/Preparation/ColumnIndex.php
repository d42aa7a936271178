<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

/** Where columns stand among the cells that come into a step. */
final readonly class ColumnIndex
{
    /** @var array<string, int> of the first column of each name */
    private array $places;

    /** @param list<string> $names */
    private function __construct(private array $names)
    {
        $this->places = array_flip(array_reverse($names, true));
    }

    /** @param list<string> $names */
    public static function of(array $names): self
    {
        return new self($names);
    }

    /** @throws UnusableStep naming the nearest column when there is none of that name */
    public function at(string $name): int
    {
        return $this->places[$name] ?? throw UnusableStep::withoutColumn($name, $this->names);
    }

    public function has(string $name): bool
    {
        return isset($this->places[$name]);
    }

    /**
     * @param  list<string>  $names
     * @return list<int>
     *
     * @throws UnusableStep
     */
    public function all(array $names): array
    {
        return array_map($this->at(...), $names);
    }

    /**
     * The names of columns that a step makes may not stand there already.
     *
     * @param  list<string>  $new
     *
     * @throws UnusableStep
     */
    public function mustBeFree(array $new): void
    {
        foreach (array_count_values($new) as $name => $times) {
            if ($times > 1 || $this->has((string) $name)) {
                throw UnusableStep::withTakenName((string) $name);
            }
        }
    }
}
