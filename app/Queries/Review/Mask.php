<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Http\Problems\ValuesAreMasked;
use App\Models\Pattern;
use App\Models\Tally;
use App\Queries\Findings\Filter;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\KeyTuple;

/**
 * Which columns' values are kept from somebody. Blank cells stay blank, for the class of a finding says so anyway; every other value is
 * replaced before it leaves the server, so that no list, record, picture or file has it. In keys a pseudonym takes its place, by which rows
 * can still be told apart.
 */
final readonly class Mask
{
    /** What stands for a value. */
    public const VALUE = '(masked)';

    /** Hexadecimal digits of a pseudonym: of a million values, hardly two have the same. */
    private const DIGITS = 10;

    /**
     * @param  array{source: list<string>, target: list<string>}  $columns  names on each side
     * @param  list<int>  $keyPlaces  which cells of a key are hidden, from 0
     */
    private function __construct(private array $columns, private array $keyPlaces, private string $secret) {}

    /**
     * @param  list<string>  $source  names of columns
     * @param  list<string>  $target
     * @param  Plan|null  $plan  of what is shown: where one column of a pair is hidden, so is the other
     * @param  string  $secret  of which pseudonyms are made
     */
    public static function over(array $source, array $target, ?Plan $plan, #[\SensitiveParameter] string $secret): self
    {
        $isHidden = static fn(KeyColumn|ColumnPair $pair): bool => in_array($pair->source, $source, true) || in_array($pair->target, $target, true);
        $hidden = array_filter([...$plan->key ?? [], ...$plan->columnPairs ?? []], $isHidden);

        return new self(
            ['source' => array_values(array_unique([...$source, ...array_map(static fn(KeyColumn|ColumnPair $pair): string => $pair->source, $hidden)])), 'target' => array_values(array_unique([...$target, ...array_map(static fn(KeyColumn|ColumnPair $pair): string => $pair->target, $hidden)]))],
            array_keys(array_filter($plan->key ?? [], $isHidden)),
            $secret,
        );
    }

    public function hidesAnything(): bool
    {
        return $this->columns() !== [];
    }

    public function hidesKeys(): bool
    {
        return $this->keyPlaces !== [];
    }

    /** @return list<string> names on either side */
    public function columns(): array
    {
        return array_values(array_unique([...$this->columns['source'], ...$this->columns['target']]));
    }

    public function hides(string $sourceColumn): bool
    {
        return in_array($sourceColumn, $this->columns['source'], true);
    }

    /** Under the name that it has on either side. */
    public function hidesColumn(string $name): bool
    {
        return $this->hides($name) || in_array($name, $this->columns['target'], true);
    }

    /** @param list<string> $columns of the source, by the place of their pair */
    public function cell(CellLine $cell, array $columns): CellLine
    {
        $shown = $this->hides($columns[$cell->pairPosition] ?? '') ? $cell->withValues($this->value($cell->source), $this->value($cell->target)) : $cell;

        return $this->hidesKeys() ? $shown->withKey($this->key($cell->key)) : $shown;
    }

    public function row(RowLine $row, Layout $layout): RowLine
    {
        return ! $this->hidesAnything() ? $row : $row->withKey($this->key($row->key))->withCells(
            $this->cells($row->sourceCells, $layout->sourceColumns, $this->columns['source']),
            $this->cells($row->targetCells, $layout->targetColumns, $this->columns['target']),
            // Nobody knows which columns stand in a record that could not be read.
            $row->refusal === null ? null : strtok($row->refusal, "\n")."\n".self::VALUE,
        );
    }

    /**
     * Who looks for a value learns it from what is found.
     *
     * @throws ValuesAreMasked if a filter asks for values that are hidden
     */
    public function mustAllow(Filter $filter, Tally $tally): void
    {
        if (! $this->hidesAnything()) {
            return;
        }
        $isKeyHidden = $filter->text('key') !== null && in_array(($filter->number('keyColumn') ?? 0) - 1, $this->keyPlaces, true);
        if ($isKeyHidden || $filter->text('text') !== null || $filter->looksAtCells() && $this->hidesPatternsOf($filter, $tally)) {
            throw new ValuesAreMasked(sprintf('Values of %s are masked for you, so they cannot be looked for either. Filter by something else, name a column that is not masked, or show the sensitive values first if your role may see them.', implode(', ', $this->columns())));
        }
    }

    /** @throws ValuesAreMasked if keys cannot be looked for, because a part of them is hidden */
    public function mustAllowKeys(): void
    {
        if ($this->hidesKeys()) {
            throw new ValuesAreMasked(sprintf('Values of %s are masked for you, and a part of the key is among them: so no key can be looked for. Filter by another part of the key, or show the sensitive values first if your role may see them.', implode(', ', $this->columns())));
        }
    }

    /** A key as it is shown: with a pseudonym for each cell that is hidden. */
    public function key(?string $key): ?string
    {
        if ($key === null || ! $this->hidesKeys()) {
            return $key;
        }
        $cells = KeyTuple::fromCsv($key)->cells;

        return KeyTuple::of(array_map(fn(string $cell, int $place): string => in_array($place, $this->keyPlaces, true) ? $this->pseudonym($cell) : $cell, $cells, array_keys($cells)))->asCsv();
    }

    /**
     * The terms of a filter, as somebody is shown them.
     *
     * @param  array<string, mixed>  $terms
     * @return array<string, mixed>
     */
    public function terms(array $terms): array
    {
        $hidden = $this->hidesAnything() ? ['source', 'target', 'text', ...($this->hidesKeys() ? ['key'] : [])] : [];

        return array_intersect_key(array_fill_keys($hidden, self::VALUE), $terms) + $terms;
    }

    /**
     * Warnings of a tally; one of them names keys.
     *
     * @param  list<string>  $warnings
     * @return list<string>
     */
    public function warnings(array $warnings): array
    {
        return $this->hidesAnything() ? array_map(static fn(string $warning): string => (string) preg_replace('/^The bridge from .* joined nothing/su', 'A bridge joined nothing', $warning), $warnings) : $warnings;
    }

    public function value(string $value): string
    {
        return $value === '' ? '' : self::VALUE;
    }

    private function hidesPatternsOf(Filter $filter, Tally $tally): bool
    {
        return $tally->patterns()->where(array_filter(['number' => $filter->number('pattern'), 'pair_id' => $filter->text('pair')], static fn(string|int|null $term): bool => $term !== null))
            ->get()->contains(fn(Pattern $pattern): bool => $this->hides($pattern->source_column));
    }

    private function pseudonym(string $value): string
    {
        return $value === '' ? '' : '*'.substr(hash_hmac('sha256', $value, $this->secret), 0, self::DIGITS);
    }

    /**
     * @param  list<string>|null  $cells
     * @param  list<string>  $names  of the columns that the cells stand in
     * @param  list<string>  $hidden
     * @return list<string>|null
     */
    private function cells(?array $cells, array $names, array $hidden): ?array
    {
        return $cells === null ? null : array_map(fn(string $value, ?string $name): string => in_array($name, $hidden, true) ? $this->value($value) : $value, $cells, array_slice($names, 0, count($cells)));
    }
}
