<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

/** Puts values into queries, as the database that is asked quotes them. */
trait BindsValues
{
    abstract private function open(): \PDO;

    public function look(string $sql, int $rows): array
    {
        $first = $this->address->kind === SourceKind::SqlServer
            ? "SELECT TOP {$rows} * FROM ({$sql}\n) AS asked"
            : "SELECT * FROM ({$sql}\n) AS asked LIMIT {$rows}";
        try {
            $database = $this->open();
            $database->setAttribute(\PDO::ATTR_STRINGIFY_FETCHES, true);
            $query = $database->prepare($first);
            $query->execute();
            /** @var list<array<string, mixed>> $found */
            $found = $query->fetchAll(\PDO::FETCH_ASSOC);
        } catch (\PDOException $problem) {
            throw SourceProblem::of($problem, $this->address);
        }

        return array_map(static fn(array $row): array => array_map(DrivenValue::text(...), $row), $found);
    }

    public function bound(string $sql, array $values): string
    {
        $query = new BoundQuery($sql, $this->address->kind);
        if ($query->names() === []) {
            return $sql;
        }
        try {
            $database = $this->open();
        } catch (\PDOException $problem) {
            throw SourceProblem::of($problem, $this->address);
        }

        return $query->with($values, static fn(string $value): string|false => $database->quote($value));
    }
}
