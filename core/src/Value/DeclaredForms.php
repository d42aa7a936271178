<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

/**
 * What a side, or a reference, declares about the values of its columns, at one place of its preparation: before the first step, between
 * two, or behind the last. Steps, conditions, orders, totals, look-ups and the comparison all read by it.
 *
 * A column is declared under the name that it has when all steps have run. What a step writes itself, it writes in the one form that needs
 * no declaration (plain decimals, ISO 8601), so what the side declares about forms does not hold there; blank tokens always do.
 *
 * @phpstan-import-type Declared from DeclaredReading
 */
final readonly class DeclaredForms
{
    public const NUMBERS = ['decimalMark', 'groupMark', 'currency', 'percent', 'negatives'];

    public const DATES = ['dateForms', 'twoDigitYearsFrom'];

    public const WORDS = ['yes', 'no'];

    /**
     * @param  Declared  $ofSide
     * @param  array<string, Declared>  $ofColumns  by the name behind the last step
     * @param  array<string, string>  $names  name at this place => name behind the last step, where they differ
     * @param  array<string, array{forms: list<string>, isRead: bool}>  $written  column at this place
     *     => which declarations a step has made void by writing it; whether it read the values that stood there
     */
    private function __construct(private array $ofSide, private array $ofColumns, private array $names = [], private array $written = []) {}

    public static function none(): self
    {
        return new self([], []);
    }

    /**
     * @param  Declared  $ofSide
     * @param  array<string, Declared>  $ofColumns
     */
    public static function of(array $ofSide, array $ofColumns): self
    {
        return new self($ofSide, $ofColumns);
    }

    /**
     * At a place of the preparation.
     *
     * @param  array<string, string>  $names
     * @param  array<string, array{forms: list<string>, isRead: bool}>  $written
     */
    public function at(array $names, array $written): self
    {
        return new self($this->ofSide, $this->ofColumns, $names, $written);
    }

    public function isEmpty(): bool
    {
        return $this->ofSide === [] && $this->ofColumns === [];
    }

    /** Whether a step writes the column, in the form that needs no declaration. */
    public function isWritten(string $column): bool
    {
        return ($this->written[$column]['forms'] ?? []) !== [];
    }

    public function reading(string $column, Kind $kind): Reading
    {
        return DeclaredReading::of($this->declared($column), $kind);
    }

    /** @return Declared */
    public function declared(string $column): array
    {
        $written = $this->written[$column] ?? ['forms' => [], 'isRead' => false];
        $void = array_flip($written['forms']);
        $ofColumn = $this->ofColumns[$this->names[$column] ?? $column] ?? [];

        /** @var Declared $declared */
        $declared = [...array_diff_key($this->ofSide, $void), ...($written['isRead'] ? array_diff_key($ofColumn, $void) : $ofColumn)];

        return $declared;
    }

    /** @return array{Declared, array<string, Declared>} */
    public function toArray(): array
    {
        return [$this->ofSide, $this->ofColumns];
    }
}
