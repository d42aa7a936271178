<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Cause\CanonicalForm;
use NineTally\Core\Cause\FormCombination;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Value\Reading;

/**
 * One writing for all keys that are the same once the key's forgiven causes are taken away. Injective for tuples.
 *
 * In a key every blank token equals the empty cell. Holds a bounded memo for each key column.
 */
final class KeyForm
{
    private const MEMO_SIZE = 10_000;

    /** Whether the bytes of the key cells are the key. */
    public readonly bool $isPlain;

    /** @var array<int, array<string, string>> */
    private array $memo;

    /** @var list<CanonicalForm> by key column */
    private readonly array $forms;

    /**
     * @param  list<Reading>  $readings  of the key columns on this side
     * @param  list<list<string>>  $forgives  causes of form by key column
     */
    public function __construct(array $readings, array $forgives, FormCombination $forms)
    {
        $this->isPlain =
            array_filter($readings, static fn(Reading $reading): bool => $reading->hasBlankTokens()) === [] &&
            array_filter($forgives) === [];
        $this->memo = array_fill(0, count($readings), []);
        $this->forms = array_map(
            static fn(Reading $reading, array $ofColumn): CanonicalForm => new CanonicalForm($reading, $ofColumn, $forms),
            $readings,
            $forgives,
        );
    }

    /** @param list<string> $cells */
    public function canonical(array $cells): string
    {
        $key = [];
        foreach ($cells as $column => $cell) {
            $key[] = $this->memo[$column][$cell] ?? $this->remember($column, $cell);
        }

        return implode(Batch::CELL_END, $key);
    }

    private function remember(int $column, string $cell): string
    {
        if (count($this->memo[$column]) === self::MEMO_SIZE) {
            $this->memo[$column] = [];
        }

        return $this->memo[$column][$cell] = $this->forms[$column]->of($cell);
    }
}
