<?php

declare(strict_types=1);

namespace NineTally\Core\Row;

/** The column names of a side, in the order of its cells: no name stands twice, for what a header repeats is told apart by its place. */
final readonly class Columns
{
    /** As many as a sheet can have (ECMA-376); a table with more was read the wrong way. */
    public const MOST = 16_384;

    /** @var array<string, int> */
    private array $positions;

    /**
     * @param  list<string>  $names
     * @param  array<string, non-empty-list<string>>  $repeated
     */
    private function __construct(public string $owner, public array $names, private array $repeated)
    {
        $this->positions = array_flip($names);
    }

    /**
     * A column without a name, or with one that is no text, is called by its place ("column 3"), and one whose name is repeated by both
     * ("fee (column 3)"), so that each can be chosen.
     *
     * @param  string  $owner  the file, as the person knows it, for messages
     * @param  list<string>  $names
     */
    public static function named(string $owner, array $names): self
    {
        $names = array_map(
            // What is no text under the encoding that was chosen can be called by nobody.
            static fn(string $name, int $position): string => trim($name) === '' || ! mb_check_encoding($name, 'UTF-8')
                ? 'column '.($position + 1)
                : $name,
            $names,
            array_keys($names),
        );
        $times = array_count_values($names);
        $repeated = [];
        foreach ($names as $position => $name) {
            if ($times[$name] > 1) {
                $own = $name;
                do {
                    $own = sprintf('%s (column %d)', $own, $position + 1);
                } while (isset($times[$own]));
                $names[$position] = $own;
                $repeated[$name][] = $own;
            }
        }

        return new self($owner, $names, $repeated);
    }

    public function count(): int
    {
        return count($this->names);
    }

    public function has(string $name): bool
    {
        return isset($this->positions[$name]);
    }

    /** @return array<string, non-empty-list<string>> name that the header repeats => the names of its columns */
    public function repeated(): array
    {
        return $this->repeated;
    }

    /**
     * @throws UnknownColumn
     * @throws DuplicateColumn when the header repeats the name, for nobody can say which is meant
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
