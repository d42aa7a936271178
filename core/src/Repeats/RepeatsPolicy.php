<?php

declare(strict_types=1);

namespace NineTally\Core\Repeats;

use NineTally\Core\Value\Kind;

/** What happens to rows of one side that share a key. */
final readonly class RepeatsPolicy
{
    /**
     * @param  string|null  $column  of the side, where the highest or lowest value decides
     * @param  DecidingColumn|null  $then  decides between rows that are equal in the first column
     * @param  list<string>  $except  columns in which copies may differ
     * @param  list<DifferingPolicy>  $own  of keys whose rows differ in certain columns
     */
    private function __construct(
        public PolicyId $id,
        public ?string $column = null,
        public Kind $kind = Kind::Text,
        public ?DecidingColumn $then = null,
        public array $except = [],
        public array $own = [],
    ) {}

    public static function setAside(): self
    {
        return new self(PolicyId::SetAside);
    }

    public static function of(PolicyId $id): self
    {
        return $id->needsColumn() ? throw new \InvalidArgumentException("The policy {$id->value} needs a column.") : new self($id);
    }

    public static function byColumn(PolicyId $id, string $column, Kind $kind, ?DecidingColumn $then = null): self
    {
        return $id->needsColumn()
            ? new self($id, $column, $kind, $then)
            : throw new \InvalidArgumentException("The policy {$id->value} needs no column.");
    }

    /** @param list<string> $except columns in which copies may differ */
    public static function copies(array $except): self
    {
        return new self(PolicyId::CollapseCopies, except: $except);
    }

    /** @param list<DifferingPolicy> $own */
    public function withOwn(array $own): self
    {
        return new self($this->id, $this->column, $this->kind, $this->then, $this->except, $own);
    }

    public function isDefault(): bool
    {
        return $this->id === PolicyId::SetAside && $this->own === [];
    }

    /** @return list<DecidingColumn> the first decides; the second where the first does not */
    public function deciding(): array
    {
        return $this->column === null
            ? []
            : [
                new DecidingColumn($this->column, $this->kind, $this->id === PolicyId::KeepHighest),
                ...$this->then === null ? [] : [$this->then],
            ];
    }

    /** @return array<string, string> place in the policy => the column that is named there */
    public function namedColumns(): array
    {
        $named = array_filter(
            ['/column' => $this->column, '/then/column' => $this->then?->column],
            static fn(?string $column): bool => $column !== null,
        );
        foreach ($this->except as $position => $column) {
            $named["/except/{$position}"] = $column;
        }
        foreach ($this->own as $position => $own) {
            foreach ($own->columns as $place => $column) {
                $named["/own/{$position}/differ/{$place}"] = $column;
            }
            foreach ($own->policy->namedColumns() as $place => $column) {
                $named["/own/{$position}{$place}"] = $column;
            }
        }

        return $named;
    }

    /** @return array<string, mixed> as the plan writes it */
    public function toArray(): array
    {
        return [
            'policy' => $this->id->value,
            ...($this->column === null ? [] : ['column' => $this->column, 'kind' => $this->kind->value]),
            ...array_filter([
                'then' => $this->then?->toArray(),
                'except' => $this->except,
                'own' => array_map(static fn(DifferingPolicy $own): array => $own->toArray(), $this->own),
            ]),
        ];
    }
}
