<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Http\Problems\ValuesAreMasked;
use App\Models\Pattern;
use App\Models\Tally;

/**
 * Which columns' values are kept from somebody. Blank cells stay blank, for the class of a finding says so anyway; every other value is
 * replaced before it leaves the server, so that no list, record, picture or file has it.
 */
final readonly class Mask
{
    /** What stands for a value. */
    public const VALUE = '(masked)';

    /** @param array{source: list<string>, target: list<string>} $columns names on each side */
    private function __construct(private array $columns) {}

    /**
     * @param  list<string>  $source  names of columns
     * @param  list<string>  $target
     */
    public static function over(array $source, array $target): self
    {
        return new self(['source' => $source, 'target' => $target]);
    }

    public function hidesAnything(): bool
    {
        return $this->columns['source'] !== [];
    }

    /** @return list<string> names in the source */
    public function columns(): array
    {
        return $this->columns['source'];
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
        return $this->hides($columns[$cell->pairPosition] ?? '') ? $cell->withValues($this->value($cell->source), $this->value($cell->target)) : $cell;
    }

    public function row(RowLine $row, Layout $layout): RowLine
    {
        return ! $this->hidesAnything() ? $row : $row->withCells(
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
        if (! $this->hidesAnything() || ! $filter->looksAtCells()) {
            return;
        }
        $patterns = $tally->patterns()->where(array_filter(['number' => $filter->number('pattern'), 'pair_id' => $filter->text('pair')], static fn(string|int|null $term): bool => $term !== null))->get();
        if ($filter->text('text') !== null || $patterns->contains(fn(Pattern $pattern): bool => $this->hides($pattern->source_column))) {
            throw new ValuesAreMasked(sprintf('Values of %s are masked for you, so they cannot be looked for either. Filter by something else, name a column that is not masked, or show the sensitive values first if your role may see them.', implode(', ', $this->columns['source'])));
        }
    }

    public function value(string $value): string
    {
        return $value === '' ? '' : self::VALUE;
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
