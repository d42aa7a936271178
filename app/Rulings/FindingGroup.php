<?php

declare(strict_types=1);

namespace App\Rulings;

use NineTally\Core\Comparison\RowClass;

/**
 * The findings of a tally that are ruled on together: the cells of a pattern, or the rows of a class. The database knows it by its name.
 */
final readonly class FindingGroup
{
    /** @param string $value the number of the pattern, or the class */
    private function __construct(public GroupKind $kind, public string $value) {}

    public static function ofPattern(int $number): self
    {
        return new self(GroupKind::Pattern, (string) $number);
    }

    public static function ofClass(RowClass $class): self
    {
        return new self(GroupKind::RowClass, $class->value);
    }

    /** @param string $name as name() gives it */
    public static function named(string $name): self
    {
        [$kind, $value] = explode(':', $name, 2);

        return new self(GroupKind::from($kind), $value);
    }

    /** @return string such as "pattern:3" or "class:missing" */
    public function name(): string
    {
        return $this->kind->prefix().$this->value;
    }
}
