<?php

declare(strict_types=1);

namespace App\Queries\TakeAway;

use NineTally\Core\Report\CsvLine;

/** A table as text in an open format, with the schema that describes it. */
final readonly class TableText
{
    public function __construct(private Table $table) {}

    /** @return \Generator<int, string> CSV (RFC 4180) in UTF-8 with LF */
    public function csv(bool $forSpreadsheets): \Generator
    {
        yield $this->line(self::names($this->table), $forSpreadsheets);
        foreach ($this->table->lines() as $cells) {
            yield $this->line($cells, $forSpreadsheets);
        }
    }

    /** @param list<string|int|float> $cells */
    private function line(array $cells, bool $forSpreadsheets): string
    {
        return CsvLine::of(
            array_map(
                static fn(string|int|float $cell): string|int => is_float($cell) ? self::decimal($cell) : $cell,
                $forSpreadsheets ? CsvLine::forSpreadsheets($cells) : $cells,
            ),
        );
    }

    /** @return \Generator<int, string> an object a line: counts, lines and differences are numbers, values are strings, nothing is null */
    public function jsonLines(): \Generator
    {
        $fields = $this->table->fields();
        foreach ($this->table->lines() as $cells) {
            $object = [];
            foreach ($fields as $place => $field) {
                $cell = $cells[$place];
                $object[$field->name] = match (true) {
                    is_float($cell) => (float) self::decimal($cell),
                    $cell === '' && $field->type !== 'string' => null,
                    $field->type === 'boolean' => $cell === 'true',
                    default => $cell,
                };
            }
            yield json_encode(
                $object,
                JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_PRESERVE_ZERO_FRACTION,
            )."\n";
        }
    }

    /** @return array<string, mixed> Table Schema (Data Package, version 2) */
    public function schema(): array
    {
        return [
            '$schema' => 'https://datapackage.org/profiles/2.0/tableschema.json',
            'fields' => array_map(static fn(TableField $field): array => $field->toArray(), $this->table->fields()),
            'primaryKey' => $this->table->primaryKey(),
            'missingValues' => [''],
        ];
    }

    /** @return list<string> */
    public static function names(Table $table): array
    {
        return array_map(static fn(TableField $field): string => $field->name, $table->fields());
    }

    /** Without an exponent, and with no more digits than it was made of. */
    private static function decimal(float $number): string
    {
        return rtrim(rtrim(sprintf('%.15F', round($number, 15)), '0'), '.');
    }
}
