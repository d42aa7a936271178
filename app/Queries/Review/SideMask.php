<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Problems\ValuesAreMasked;

/**
 * What is kept from somebody of a side, from the delivered file to the prepared row: names of columns at each place on the way. Blank
 * cells stay blank; every other value is replaced before it leaves the server.
 */
final readonly class SideMask
{
    /** @param array<int, list<string>> $hidden as delivered (0), and behind each working step by its number */
    public function __construct(private array $hidden) {}

    public function hidesAnything(): bool
    {
        return array_filter($this->hidden) !== [];
    }

    public function hidesDelivered(string $column): bool
    {
        return in_array($column, $this->hidden[0] ?? [], true);
    }

    public function hidesPrepared(string $column): bool
    {
        return in_array($column, $this->prepared(), true);
    }

    /** @return list<string> names of delivered columns */
    public function delivered(): array
    {
        return $this->hidden[0] ?? [];
    }

    /** @return list<string> names of prepared columns */
    public function prepared(): array
    {
        return $this->hidden === [] ? [] : $this->hidden[max(array_keys($this->hidden))];
    }

    /** @return list<string> names at any place on the way */
    public function anywhere(): array
    {
        return array_values(array_unique(array_merge(...array_values($this->hidden))));
    }

    /** As it is behind the steps up to a number. */
    public function behind(int $step): self
    {
        $names = [];
        foreach ($this->hidden as $number => $hidden) {
            $names = $number <= $step ? $hidden : $names;
        }

        return new self([0 => $names]);
    }

    /**
     * @param  list<string>  $columns  names that the cells stand under, as delivered; of a mask that is {@see behind()} steps, as there
     * @param  list<string>  $cells
     * @return list<string>
     */
    public function cells(array $columns, array $cells): array
    {
        $hidden = $this->hidden[0] ?? [];

        return $hidden === [] ? $cells : array_map(
            static fn(string $cell, ?string $column): string => $cell !== '' && ($column === null || in_array($column, $hidden, true))
                ? Mask::VALUE
                : $cell,
            $cells,
            array_slice(array_pad($columns, count($cells), null), 0, count($cells)),
        );
    }

    /**
     * Rows with their cells, as answers have them.
     *
     * @param  list<string>  $columns
     * @param  list<array{part: int, line: int, cells: list<string>, ...}>  $rows
     * @return list<array{part: int, line: int, cells: list<string>, ...}>
     */
    public function rows(array $columns, array $rows): array
    {
        return array_map(fn(array $row): array => [...$row, 'cells' => $this->cells($columns, $row['cells'])], $rows);
    }

    /** A value of a column that is hidden. */
    public function hidden(string $value): string
    {
        return $value === '' ? '' : Mask::VALUE;
    }

    /** A text of which nobody knows which columns stand in it. */
    public function text(string $text): string
    {
        return $this->hidesAnything() && $text !== '' ? Mask::VALUE : $text;
    }

    /** Of prepared rows, behind all steps. */
    public function ofPrepared(): self
    {
        return new self([0 => $this->prepared()]);
    }

    /** Only where something stands in a line of fixed width: enough to set the edges of its columns by. */
    public function shape(string $line): string
    {
        return $this->hidesAnything() ? (string) preg_replace('/\S/u', '×', $line) : $line;
    }

    /**
     * @param  list<string>  $columns  that somebody looks for values of, or groups rows by
     *
     * @throws ValuesAreMasked if one of them is hidden: who groups by a value, or looks for it, learns it
     */
    public function mustAllow(array $columns): void
    {
        $masked = array_values(array_intersect($columns, $this->anywhere()));
        if ($masked !== []) {
            throw new ValuesAreMasked(
                sprintf(
                    'Values of %s are masked for you, so rows can be neither looked for nor grouped by them. Choose other columns, or '.
                        'show the sensitive values first if your role may see them.',
                    implode(', ', $masked),
                ),
            );
        }
    }
}
