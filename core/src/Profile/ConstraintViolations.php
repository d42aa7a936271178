<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

/** Counts the values of the source that will not fit into the target, by column and by what they do not meet. */
final class ConstraintViolations
{
    private const EXAMPLES = 20;

    /** @var array<int, array<string, array{count: int, examples: list<array{packedPlace: int, value: string}>}>> by column */
    private array $unmet = [];

    /** @param array<int, ColumnConstraint> $demands by the place of the source's cell */
    public function __construct(private readonly array $demands) {}

    /** @param list<string> $cells */
    public function see(int $packedPlace, array $cells): void
    {
        foreach ($this->demands as $place => $demand) {
            foreach ($demand->unmetBy($cells[$place]) as $part) {
                $so = $this->unmet[$place][$part] ?? ['count' => 0, 'examples' => []];
                $so['count']++;
                if (count($so['examples']) < self::EXAMPLES) {
                    $so['examples'][] = ['packedPlace' => $packedPlace, 'value' => mb_strcut($cells[$place], 0, 400)];
                }
                $this->unmet[$place][$part] = $so;
            }
        }
    }

    /**
     * @return array<int, array<string, array{count: int, examples: list<array{packedPlace: int, value: string}>}>> by the place of the
     *     cell, then by the part of the demand; the first of each as examples
     */
    public function found(): array
    {
        return $this->unmet;
    }
}
