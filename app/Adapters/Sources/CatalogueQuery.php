<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

/** What a database says of itself: its tables, their columns. */
final readonly class CatalogueQuery
{
    /** @param \Closure(): \PDO $open a connection that may only read */
    public function __construct(private \Closure $open, private SourceAddress $address) {}

    /**
     * @param  list<mixed>  $bindings
     * @return list<array<string, scalar|null>>
     *
     * @throws SourceProblem when it cannot be entered or read
     */
    public function rows(string $sql, array $bindings = []): array
    {
        try {
            $query = ($this->open)()->prepare($sql);
            $query->execute($bindings);
            /** @var list<array<string, scalar|null>> $rows */
            $rows = $query->fetchAll(\PDO::FETCH_ASSOC);

            return $rows;
        } catch (\PDOException $problem) {
            throw SourceProblem::of($problem, $this->address);
        }
    }

    /**
     * Columns of a table as a catalogue tells them: name, kind, and something by which those of the key are known.
     *
     * @param  list<mixed>  $bindings
     * @param  \Closure(array<string, scalar|null>): bool  $isKey
     * @return list<array{name: string, kind: string, isKey: bool}>
     *
     * @throws SourceProblem when there is no such table, or it may not be read
     */
    public function columns(string $table, string $sql, array $bindings, \Closure $isKey): array
    {
        $columns = $this->rows($sql, $bindings);

        return $columns === []
            ? throw new SourceProblem("There is no table \"{$table}\" here that this user may read.")
            : array_map(
                static fn(array $row): array => ['name' => (string) $row['name'], 'kind' => (string) $row['kind'], 'isKey' => $isKey($row)],
                $columns,
            );
    }
}
