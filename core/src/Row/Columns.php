<?php

declare(strict_types=1);

namespace NineTally\Core\Row;

/** The column names of a side, in the order of its cells. A name may stand twice, as long as nobody asks for it. */
final readonly class Columns
{
    /** As many as a sheet can have (ECMA-376); a table with more was read the wrong way. */
    public const MOST = 16_384;

    /** @var array<string, int> the first position of each name */
    private array $positions;

    /** @var array<string, list<int>> positions, counted from 1, of the names that stand more than once */
    private array $repeated;

    /** @param list<string> $names */
    private function __construct(public string $owner, public array $names)
    {
        $all = [];
        foreach ($names as $position => $name) {
            $all[$name][] = $position + 1;
        }
        $this->positions = array_map(static fn(array $found): int => $found[0] - 1, $all);
        $this->repeated = array_filter($all, static fn(array $found): bool => count($found) > 1);
    }

    /**
     * A column without a name is called by its place ("column 3"), so that it can still be chosen.
     *
     * @param  string  $owner  the file, as the person knows it, for messages
     * @param  list<string>  $names
     */
    public static function named(string $owner, array $names): self
    {
        return new self($owner, array_map(
            static fn(string $name, int $position): string => trim($name) === '' ? 'column '.($position + 1) : $name,
            $names,
            array_keys($names),
        ));
    }

    public function count(): int
    {
        return count($this->names);
    }

    public function has(string $name): bool
    {
        return isset($this->positions[$name]);
    }

    /** @return array<string, list<int>> name => its positions, counted from 1 */
    public function repeated(): array
    {
        return $this->repeated;
    }

    /**
     * @throws UnknownColumn
     * @throws DuplicateColumn when the name stands more than once, for nobody can say which is meant
     */
    public function positionOf(string $name): int
    {
        if (isset($this->repeated[$name])) {
            throw DuplicateColumn::inHeader($this->owner, $name, $this->repeated[$name]);
        }

        return $this->positions[$name] ?? throw UnknownColumn::notAmong($this->owner, $name, $this->names);
    }

    /**
     * @param  list<string>  $names
     * @return list<int>
     */
    public function positionsOf(array $names): array
    {
        return array_map($this->positionOf(...), $names);
    }
}
