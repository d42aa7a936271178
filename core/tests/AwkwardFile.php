<?php

declare(strict_types=1);

namespace NineTally\Tests;

/** A file as people hand them over, and what it holds. */
final readonly class AwkwardFile
{
    /**
     * @param  list<string>  $columns
     * @param  list<list<string>>  $rows
     */
    public function __construct(public string $kind, public string $path, private array $columns, private array $rows) {}

    /**
     * @param  list<string>  $columns  as they were read
     * @param  list<list<string>|null>  $rows  as they were read; null for a refused record
     * @return string|null null where the table was read as it is
     */
    public function complaint(array $columns, array $rows): ?string
    {
        return match (true) {
            $columns !== $this->columns => sprintf('columns are %s, not %s', self::list($columns), self::list($this->columns)),
            in_array(null, $rows, true) => 'records are refused',
            count($rows) !== count($this->rows) => sprintf('%d rows, not %d', count($rows), count($this->rows)),
            $rows !== $this->rows => sprintf('the first row that differs: %s', self::list(array_values(
                array_filter($rows, fn(?array $row, int $place): bool => $row !== $this->rows[$place], ARRAY_FILTER_USE_BOTH),
            )[0] ?? [])),
            default => null,
        };
    }

    /** @param array<string> $cells */
    private static function list(array $cells): string
    {
        return '['.mb_strimwidth(implode(' | ', $cells), 0, 90, '…').']';
    }
}
