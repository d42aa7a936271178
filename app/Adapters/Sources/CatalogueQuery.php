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
}
