<?php

declare(strict_types=1);

namespace App\Rulings\FindingSet;

use Illuminate\Support\Facades\Validator;
use Illuminate\Validation\Rule;
use Illuminate\Validation\ValidationException;
use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowReason;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Row\Side;

/**
 * Which findings of a tally are looked at: rows that did not agree, or cells that differ. What is said is combined by "and"; nothing said
 * means all. The same filter has the same digest, whoever wrote it and in whatever order.
 */
final readonly class Filter
{
    /** More findings than this are ruled on by a filter, not one by one. */
    public const MOST_SELECTED = 10_000;

    /** A ruling that stands, or findings whose ruling no longer stands because their values changed. */
    public const RULINGS = ['expected', 'defect', 'ask', 'open', 'reopened'];

    /** What only cells have: whoever filters by one of these means cells. */
    public const OF_CELLS = ['pattern', 'pair', 'cause', 'cellClass', 'source', 'target', 'difference', 'atLeast'];

    /** What a number differs by: anything but nought, upwards, downwards, or nought. */
    public const DIFFERENCES = ['some', 'up', 'down', 'nought'];

    /** As PostgreSQL and everybody else reads it. */
    private const DECIMAL = '/^\d{1,300}(\.\d{1,300})?$/D';

    /** What counts from 1. */
    public const NUMBERS = ['pattern', 'act', 'keyColumn', 'part', 'total', 'group'];

    /** What may be the empty text: of values that is the blank cell. Any other term that is empty says nothing. */
    public const MAY_BE_BLANK = ['source', 'target', 'key', 'value'];

    /** What only rows have. A list of cells with one of these has those of such rows. */
    public const OF_ROWS = ['reason', 'side', 'part', 'bridged', 'total', 'group', 'moved', 'column', 'value'];

    /** What the pattern of a cell, or the class of a row, says of all that are in it. */
    private const OF_GROUPS = ['pattern', 'pair', 'cause', 'cellClass', 'class'];

    /** @param array<string, string|int|list<int>> $terms what is said, by name, in the order of their names */
    private function __construct(public bool $isOfCells, private array $terms) {}

    /**
     * @param  array<array-key, mixed>  $input
     *
     * @throws ValidationException that names the term
     */
    public static function from(array $input): self
    {
        // A term that nobody knows would be left out in silence, and more would be found, or ruled on, than was asked for.
        foreach (array_diff(array_keys($input), array_keys(self::rules())) as $unknown) {
            throw ValidationException::withMessages([
                (string) $unknown => "A filter has no term \"{$unknown}\". It may say: ".implode(', ', self::terms()).'.',
            ]);
        }
        $terms = Validator::make($input, self::rules())->validate();
        $terms = array_filter(
            $terms,
            static fn(mixed $value, string|int $name): bool => $value !== null &&
                ($value !== '' || in_array($name, self::MAY_BE_BLANK, true)),
            ARRAY_FILTER_USE_BOTH,
        );
        foreach (self::NUMBERS as $number) {
            if (isset($terms[$number]) && is_numeric($terms[$number])) {
                $terms[$number] = (int) $terms[$number];
            }
        }
        $isOfCells = ($terms['of'] ?? null) === 'cells' || array_intersect(self::OF_CELLS, array_keys($terms)) !== [];
        unset($terms['of']);
        ksort($terms);

        /** @var array<string, string|int|list<int>> $terms */
        return new self($isOfCells, $terms);
    }

    /** @return list<string> what can be said, but for which findings are chosen one by one */
    public static function terms(): array
    {
        return array_values(array_diff(array_keys(self::rules()), ['sequences', 'sequences.*']));
    }

    /** @return array<string, list<mixed>> */
    private static function rules(): array
    {
        return [
            'of' => ['in:rows,cells'],
            'class' => [Rule::enum(RowClass::class)],
            'reason' => [Rule::enum(RowReason::class)],
            'side' => [Rule::enum(Side::class), 'required_with:part'],
            'part' => ['integer', 'min:1', 'max:10000'],
            'bridged' => ['in:yes'],
            // Of a control total: rows of one of its groups, or that went from it or to it.
            'total' => ['integer', 'min:1', 'max:1000', 'required_with:group'],
            'group' => ['integer', 'min:1', 'max:1000000', 'required_with:total,moved'],
            'moved' => ['in:yes'],
            'pattern' => ['integer', 'min:1', 'max:2147483647'],
            'pair' => ['string', 'max:100'],
            'cause' => ['string', 'max:200'],
            'cellClass' => [Rule::enum(CellClass::class)],
            'ruling' => [Rule::in(self::RULINGS)],
            'act' => ['integer', 'min:1'],
            'difference' => [Rule::in(self::DIFFERENCES)],
            'atLeast' => ['string', 'regex:'.self::DECIMAL],
            'source' => ['nullable', 'string'],
            'target' => ['nullable', 'string'],
            'key' => ['nullable', 'string', 'required_with:keyColumn'],
            'keyColumn' => ['integer', 'min:1', 'max:20', 'required_with:key'],
            // Rows with exactly this cell in any column of theirs.
            'column' => ['string', 'max:10000', 'required_with:value'],
            'value' => ['nullable', 'string', 'present_with:column'],
            'text' => ['nullable', 'string', 'max:1000'],
            'sequences' => ['array', 'min:1', 'max:'.self::MOST_SELECTED],
            'sequences.*' => ['integer', 'min:1'],
        ];
    }

    /** @param list<int> $sequences */
    public static function selection(bool $isOfCells, array $sequences): self
    {
        return self::from(['of' => $isOfCells ? 'cells' : 'rows', 'sequences' => $sequences]);
    }

    public static function ofClass(?string $class): self
    {
        return self::from(['class' => $class ?? '']);
    }

    public static function ofPattern(int $number): self
    {
        return self::from(['pattern' => $number]);
    }

    public function text(string $name): ?string
    {
        $value = $this->terms[$name] ?? null;

        return is_string($value) ? $value : null;
    }

    public function number(string $name): ?int
    {
        $value = $this->terms[$name] ?? null;

        return is_int($value) ? $value : null;
    }

    /** @return list<int>|null */
    public function sequences(): ?array
    {
        $value = $this->terms['sequences'] ?? null;

        return is_array($value) ? array_map(intval(...), $value) : null;
    }

    /** One pattern, one class, or all: then each finding knows its place in the list. */
    public function isPlain(): bool
    {
        return array_diff(array_keys($this->terms), [$this->isOfCells ? 'pattern' : 'class']) === [];
    }

    /** Only the pattern or class in whose order its list stands. */
    public function plain(): self
    {
        return new self($this->isOfCells, array_intersect_key($this->terms, [$this->isOfCells ? 'pattern' : 'class' => true]));
    }

    /** Whether what people decide changes what is in the list. */
    public function followsRulings(): bool
    {
        return isset($this->terms['ruling']) || isset($this->terms['act']);
    }

    /** Whether it asks for whole patterns and classes, and for nothing else. */
    public function isOfGroups(): bool
    {
        return array_diff(array_keys($this->terms), self::OF_GROUPS) === [];
    }

    /** Whether no finding need be looked at: of groups it is known in which rows their findings stand, and what stands for them. */
    public function isOfGroupsRulingsAndKeys(): bool
    {
        return array_diff(array_keys($this->terms), [...self::OF_GROUPS, 'ruling', 'act', 'key', 'keyColumn']) === [] &&
            $this->text('ruling') !== 'reopened';
    }

    /** Whether the difference of each cell has to be looked at. */
    public function asksForDifferences(): bool
    {
        return array_intersect(['difference', 'atLeast'], array_keys($this->terms)) !== [];
    }

    /** Whether it says what only rows have. */
    public function asksForRows(): bool
    {
        return array_intersect(self::OF_ROWS, array_keys($this->terms)) !== [];
    }

    /** The same part of the key, of rows and nothing else; null where none is asked for. */
    public function rowsOfKey(): ?self
    {
        return isset($this->terms['key']) ? new self(false, array_intersect_key($this->terms, ['key' => true, 'keyColumn' => true])) : null;
    }

    /** Whether it asks for values of compared columns, which not everybody may see. */
    public function looksAtCells(): bool
    {
        return array_intersect(['source', 'target', 'text'], array_keys($this->terms)) !== [];
    }

    /** @return array<string, string|int|list<int>> */
    public function toArray(): array
    {
        return ['of' => $this->isOfCells ? 'cells' : 'rows', ...$this->terms];
    }

    public function digest(): string
    {
        return hash('sha256', CanonicalJson::of($this->toArray()));
    }
}
