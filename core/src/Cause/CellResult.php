<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

use Brick\Math\BigDecimal;
use NineTally\Core\Comparison\CellClass;

/** What two cells are to each other. The cause is missing while it waits for the whole column. */
final readonly class CellResult
{
    /** By which what is forgiven is counted: the cause and its facts. */
    public string $key;

    /**
     * @param  array<string, list<string>>  $evidence  by cause id, of a cell that waits for its column
     * @param  BigDecimal|null  $apart  target less source, where a tolerance let it pass: in its unit
     */
    private function __construct(
        public CellClass $class,
        public ?Cause $cause,
        public array $evidence = [],
        public ?BigDecimal $apart = null,
        public bool $isOfValue = false,
    ) {
        $this->key =
            $cause === null || $cause->facts === []
                ? (string) $cause?->id
                : $cause->id.' '.json_encode($cause->facts, JSON_THROW_ON_ERROR);
    }

    public static function identical(): self
    {
        return new self(CellClass::Identical, null);
    }

    public static function forgiven(Cause $cause, ?BigDecimal $apart = null): self
    {
        return new self(CellClass::Forgiven, $cause, apart: $apart);
    }

    public static function changed(Cause $cause): self
    {
        return new self(CellClass::Changed, $cause, isOfValue: ! $cause->ids[0]->isOfForm());
    }

    /** @param array<string, string|int> $facts */
    public static function blank(CauseId $id, array $facts = []): self
    {
        return new self($id === CauseId::Blanked ? CellClass::Blanked : CellClass::Filled, Cause::of($id, $facts));
    }

    /** @param array<string, list<string>> $evidence */
    public static function undecided(array $evidence): self
    {
        return new self(CellClass::Changed, null, $evidence, isOfValue: true);
    }
}
