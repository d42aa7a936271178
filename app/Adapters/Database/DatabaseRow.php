<?php

declare(strict_types=1);

namespace App\Adapters\Database;

use Illuminate\Database\Connection;

/** A row as the query builder gives it, read by name and type. A column of another type is a defect, and says so. */
final readonly class DatabaseRow
{
    private function __construct(private \stdClass $row) {}

    public static function of(\stdClass $row): self
    {
        return new self($row);
    }

    /**
     * The rows of a query that the builder cannot write.
     *
     * @param  array<array-key, mixed>  $bindings
     * @return list<self>
     */
    public static function all(Connection $database, string $query, array $bindings = []): array
    {
        return array_values(
            array_map(
                static fn(mixed $row): self => $row instanceof \stdClass
                    ? self::of($row)
                    : throw new \LogicException('The connection gives rows as objects.'),
                $database->select($query, $bindings),
            ),
        );
    }

    public function int(string $name): int
    {
        return $this->intOrNull($name) ?? throw $this->mismatch($name);
    }

    public function intOrNull(string $name): ?int
    {
        $value = $this->row->{$name};

        return $value === null || is_int($value) ? $value : throw $this->mismatch($name);
    }

    public function floatOrNull(string $name): ?float
    {
        $value = $this->row->{$name};

        // The driver makes a text of what is so small or large that it is written with a power of ten.
        return $value === null ? null : (is_float($value) || is_numeric($value) ? (float) $value : throw $this->mismatch($name));
    }

    public function text(string $name): string
    {
        return $this->textOrNull($name) ?? throw $this->mismatch($name);
    }

    public function textOrNull(string $name): ?string
    {
        $value = $this->row->{$name};

        return $value === null || is_string($value) ? $value : throw $this->mismatch($name);
    }

    /** Of a column that the query gives as hexadecimal digits, for bytes themselves come as a stream. */
    public function bytes(string $name): string
    {
        $bytes = hex2bin($this->text($name));

        return $bytes === false ? throw $this->mismatch($name) : $bytes;
    }

    /** @return list<string>|null of a JSON column that holds the cells of a row */
    public function cellsOrNull(string $name): ?array
    {
        $json = $this->textOrNull($name);
        if ($json === null) {
            return null;
        }
        /** @var list<string> $cells */
        $cells = json_decode($json, true, 8, JSON_THROW_ON_ERROR);

        return $cells;
    }

    public function flag(string $name): bool
    {
        $value = $this->row->{$name};

        return is_bool($value) ? $value : throw $this->mismatch($name);
    }

    /** @return array<string, string|int> of a JSON column that holds facts, or null where there are none */
    public function facts(string $name): array
    {
        /** @var array<string, string|int> $facts */
        $facts = json_decode($this->textOrNull($name) ?? '[]', true, 8, JSON_THROW_ON_ERROR);

        return $facts;
    }

    private function mismatch(string $name): \UnexpectedValueException
    {
        return new \UnexpectedValueException("Column \"{$name}\" is not of the type that is read.");
    }
}
