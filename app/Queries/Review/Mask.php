<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Models\Pattern;
use App\Models\Tally;
use App\Problems\ValuesAreMasked;
use App\Rulings\FindingSet\Filter;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Comparison\RowRecord;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Plan\MaskedPlan;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\Side;
use NineTally\Core\Totals\ControlTotal;
use NineTally\Core\Wording\Sentences;
use NineTally\Core\Wording\Warning;

/**
 * Which columns' values are kept from somebody. Blank cells stay blank, for the class of a finding says so anyway; every other value is
 * replaced before it leaves the server, so that no list, record, picture or file has it. In keys a pseudonym takes its place, by which rows
 * can still be told apart.
 */
final readonly class Mask
{
    /** What stands for a value. */
    public const VALUE = MaskedPlan::MASK;

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
        $isHidden = static fn(KeyColumn|ColumnPair $pair): bool => in_array($pair->source, $source, true) ||
            in_array($pair->target, $target, true);
        $hidden = array_filter([...$plan->key ?? [], ...$plan->columnPairs ?? []], $isHidden);

        return new self(
            [
                'source' => array_values(
                    array_unique([...$source, ...array_map(static fn(KeyColumn|ColumnPair $pair): string => $pair->source, $hidden)]),
                ),
                'target' => array_values(
                    array_unique([...$target, ...array_map(static fn(KeyColumn|ColumnPair $pair): string => $pair->target, $hidden)]),
                ),
            ],
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

    /** Whether a figure is computed from values that are hidden. */
    public function hidesTotal(ControlTotal $total): bool
    {
        return array_filter(
            [...$total->namesByPlace(Side::Source), ...$total->namesByPlace(Side::Target)],
            $this->hidesColumn(...),
        ) !== [];
    }

    /** @param list<string> $columns of the source, by the place of their pair */
    public function cell(RulableCell $cell, array $columns): RulableCell
    {
        $isHidden = $this->hides($columns[$cell->finding->pairPosition] ?? '');
        if (! $isHidden && ! $this->hidesKeys()) {
            return $cell;
        }


        return $cell->shownAs($this->keyTuple($cell->key), $isHidden ? self::VALUE : null);
    }

    public function row(RowFinding $row, TallyColumns $layout): RowFinding
    {
        return ! $this->hidesAnything() ? $row : $row->shownAs(
            $this->keyTuple($row->deliveredKey),
            $this->record($row->source, $layout->sourceColumns, $this->columns['source']),
            $this->record($row->target, $layout->targetColumns, $this->columns['target']),
            // Nobody knows which columns stand in a record that could not be read.
            $row->refused?->withText(self::VALUE),
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
        $column = $filter->text('column');
        $isColumnHidden = $column !== null && $this->hidesColumn($column);
        $isValueHidden = $filter->looksAtCells() && $this->hidesPatternsOf($filter, $tally);
        if ($isKeyHidden || $isColumnHidden || $filter->text('text') !== null || $isValueHidden) {
            $this->mustNotSearch();
        }
        $total = $filter->number('total') === null ? null : $tally->totals()->where('number', $filter->number('total'))->first();
        if ($total !== null && $this->hidesTotal($total->total())) {
            $this->mustNotSearch();
        }
        if ($filter->asksForDifferences()) {
            $this->mustAllowDifferences($filter, $tally);
        }
    }

    /**
     * What is sorted by a value tells it.
     *
     * @throws ValuesAreMasked if values of the filter's cells are hidden
     */
    public function mustAllowDifferences(Filter $filter, Tally $tally): void
    {
        if ($this->hidesAnything() && $this->hidesPatternsOf($filter, $tally, 'worth')) {
            $this->mustNotSearch();
        }
    }

    /** @throws ValuesAreMasked */
    public function mustNotSearch(): never
    {
        throw new ValuesAreMasked(
            sprintf(
                'Values of %s are masked for you, so they cannot be looked for either. Filter by something else, name a column that '.
                    'is not masked, or show the sensitive values first if your role may see them.',
                implode(', ', $this->columns()),
            ),
        );
    }

    /** @throws ValuesAreMasked if keys cannot be looked for, because a part of them is hidden */
    public function mustAllowKeys(): void
    {
        if ($this->hidesKeys()) {
            throw new ValuesAreMasked(
                sprintf(
                    'Values of %s are masked for you, and a part of the key is among them: so no key can be looked for. Filter by '.
                        'another part of the key, or show the sensitive values first if your role may see them.',
                    implode(', ', $this->columns()),
                ),
            );
        }
    }

    /** A key in CSV as it is shown: with a pseudonym for each cell that is hidden. */
    public function key(?string $key): ?string
    {
        return $key === null || ! $this->hidesKeys() ? $key : $this->keyTuple(KeyTuple::fromCsv($key))?->asCsv();
    }

    private function keyTuple(?KeyTuple $key): ?KeyTuple
    {
        return $key === null || ! $this->hidesKeys()
            ? $key
            : KeyTuple::of(
                array_map(
                    fn(string $cell, int $place): string => in_array($place, $this->keyPlaces, true) ? $this->pseudonym($cell) : $cell,
                    $key->cells,
                    array_keys($key->cells),
                ),
            );
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
     * Warnings of a tally in words. One kind names keys; what a tally of an earlier version said is hidden whole, for nobody knows what it
     * names.
     *
     * @param  list<array{kind: string, facts: array<string, string|int>}|string>  $warnings  as facts; of earlier versions in words
     * @return list<string>
     */
    public function warnings(array $warnings): array
    {
        $facts = array_map(
            fn(array $warning): Warning => $this->warning(Warning::fromArray($warning)),
            array_values(array_filter($warnings, is_array(...))),
        );
        $ofEarlier = array_map(
            fn(string $warning): string => $this->hidesAnything()
                ? 'A warning is not shown, for it may name values that are masked.'
                : $warning,
            array_values(array_filter($warnings, is_string(...))),
        );

        return [...$ofEarlier, ...(new Sentences)->warnings($facts)];
    }

    private function warning(Warning $warning): Warning
    {
        $facts = $warning->facts;
        foreach ($warning->kind->keyFacts() as $fact) {
            $facts[$fact] = (string) $this->key((string) ($facts[$fact] ?? ''));
        }

        return new Warning($warning->kind, $facts);
    }

    public function value(string $value): string
    {
        return $value === '' ? '' : self::VALUE;
    }

    /** @param string $having what patterns must have to be looked at: worth, where only those of numbers are meant */
    private function hidesPatternsOf(Filter $filter, Tally $tally, string $having = 'number'): bool
    {
        return $tally
            ->patterns()
            ->whereNotNull($having)
            ->where(
                array_filter(
                    ['number' => $filter->number('pattern'), 'pair_id' => $filter->text('pair')],
                    static fn(string|int|null $term): bool => $term !== null,
                ),
            )
            ->get()
            ->contains(fn(Pattern $pattern): bool => $this->hides($pattern->source_column));
    }

    private function pseudonym(string $value): string
    {
        return $value === '' ? '' : '*'.substr(hash_hmac('sha256', $value, $this->secret), 0, self::DIGITS);
    }

    /**
     * @param  list<string>  $names  of the columns that its cells stand in
     * @param  list<string>  $hidden
     */
    private function record(?RowRecord $record, array $names, array $hidden): ?RowRecord
    {
        return $record === null
            ? null
            : new RowRecord(
                $record->line,
                array_map(
                    fn(string $value, ?string $name): string => in_array($name, $hidden, true) ? $this->value($value) : $value,
                    $record->cells,
                    array_slice($names, 0, count($record->cells)),
                ),
                $record->part,
            );
    }
}
