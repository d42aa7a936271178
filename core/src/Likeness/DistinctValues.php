<?php

declare(strict_types=1);

namespace NineTally\Core\Likeness;

/** Distinct values of a column, with what stands beside each in other columns: collected row by row, in bounded memory. */
final class DistinctValues
{
    /** Distinct values that are looked at: what has more is no list of values. */
    public const MOST = 50_000;

    /** What is kept of what stands beside a value where something must be equal: of more nobody knows all. */
    private const MOST_COMMON = 100;

    /** Different cells of a column that are counted beside a value. */
    private const MOST_BESIDE = 20;

    /** @var array<array-key, int> rows by value */
    private array $rows = [];

    /** @var array<array-key, array<string, true>> by value: what it has beside it in the columns that must be equal */
    private array $common = [];

    /** @var array<array-key, list<array<array-key, int>>> by value and column that may be alike: rows by cell */
    private array $beside = [];

    private bool $isBeyond = false;

    /** @param array<array-key, int> $rows */
    public static function counted(array $rows): self
    {
        $values = new self;
        $values->rows = $rows;

        return $values;
    }

    /**
     * @param  list<string>  $equal  cells of the columns that must be equal
     * @param  list<string>  $alike  cells of the columns that may be alike
     */
    public function see(string $value, array $equal, array $alike): void
    {
        if (! isset($this->rows[$value]) && count($this->rows) === self::MOST) {
            $this->isBeyond = true;

            return;
        }
        $this->rows[$value] = ($this->rows[$value] ?? 0) + 1;
        if ($equal !== [] && count($this->common[$value] ?? []) < self::MOST_COMMON) {
            $this->common[$value][implode("\0", $equal)] = true;
        }
        foreach ($alike as $column => $cell) {
            $known = $this->beside[$value][$column] ?? [];
            if (isset($known[$cell]) || count($known) < self::MOST_BESIDE) {
                $this->beside[$value][$column][$cell] = ($known[$cell] ?? 0) + 1;
            }
        }
    }

    /** @return array<array-key, int> rows by value */
    public function rows(): array
    {
        return $this->rows;
    }

    /** Whether there are more values than are looked at. */
    public function isBeyond(): bool
    {
        return $this->isBeyond;
    }

    /** @return list<string> by column that may be alike: the cell that stands beside the value most often; of equals the first */
    public function beside(string $value): array
    {
        return array_map(static function (array $cells): string {
            arsort($cells);

            return (string) array_key_first($cells);
        }, $this->beside[$value] ?? []);
    }

    /** @return list<string>|null what it has beside it in the columns that must be equal; null where not all of it is known */
    public function common(string $value): ?array
    {
        $common = $this->common[$value] ?? [];

        return count($common) === self::MOST_COMMON ? null : array_map(strval(...), array_keys($common));
    }
}
