<?php

declare(strict_types=1);

namespace NineTally\Core\Comparison;

use NineTally\Core\Row\KeyTuple;

/**
 * What a finding is called from tally to tally: a hash of dataset, key definition, canonical key, column pair or row
 * class, side, and ordinal among rows of that key. A row without a key is known by its bytes instead.
 */
final readonly class FindingIdentity
{
    private string $beginning;

    /** @param string $keyDefinition as Plan::keyDefinition() gives it */
    public function __construct(string $dataset, string $keyDefinition)
    {
        $this->beginning = self::part($dataset).self::part($keyDefinition);
    }

    public function ofRow(RowFinding $row): string
    {
        return $this->hash($this->beginningOf($row).self::part($row->class->value).self::part((string) $row->side?->value), $row);
    }

    public function ofCell(RowFinding $row, ColumnPair $pair): string
    {
        return $this->hash($this->beginningOf($row).self::partOfPair($pair), $row);
    }

    /**
     * What names a column pair in the identity of its cells: for whoever asks for those of very many rows.
     *
     * @param  list<ColumnPair>  $pairs  of the plan
     * @return list<string>
     */
    public static function partsOfPairs(array $pairs): array
    {
        return array_map(self::partOfPair(...), $pairs);
    }

    /**
     * Of all cells of a row that are findings, in their order.
     *
     * @param  list<string>  $partsOfPairs  as {@see partsOfPairs()} gives them
     * @return list<string>
     */
    public function ofCells(RowFinding $row, array $partsOfPairs): array
    {
        $beginning = $this->beginningOf($row);
        $end = self::part((string) $row->ordinal);
        $identities = [];
        foreach ($row->cells as $cell) {
            $identities[] = substr(hash('sha256', $beginning.$partsOfPairs[$cell->pairPosition].$end), 0, 32);
        }

        return $identities;
    }

    private static function partOfPair(ColumnPair $pair): string
    {
        return self::part($pair->id).self::part('');
    }

    private function beginningOf(RowFinding $row): string
    {
        return $this->beginning.self::part(match ($row->class) {
            RowClass::Refused => (string) $row->refused?->digest,
            RowClass::Unkeyed => hash('sha256', implode(KeyTuple::SEPARATOR, $row->record()->cells ?? [])),
            default => (string) $row->key?->bytes(),
        });
    }

    /** Each part is led by its length, so that no two lists of parts meet. */
    private static function part(string $part): string
    {
        return strlen($part).':'.$part;
    }

    /** @return string the first 128 bits of SHA-256 as 32 hexadecimal digits */
    private function hash(string $parts, RowFinding $row): string
    {
        return substr(hash('sha256', $parts.self::part((string) $row->ordinal)), 0, 32);
    }
}
