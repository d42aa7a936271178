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
    /** Of the parts that all rows share: it is copied and gone on with, for hashing them anew for each cell is felt. */
    private \HashContext $beginning;

    /** @param string $keyDefinition as Plan::keyDefinition() gives it */
    public function __construct(string $dataset, string $keyDefinition)
    {
        $this->beginning = hash_init('sha256');
        hash_update($this->beginning, self::part($dataset).self::part($keyDefinition));
    }

    public function ofRow(RowFinding $row): string
    {
        return $this->ofRowAndCells($row, [])[0];
    }

    public function ofCell(RowFinding $row, ColumnPair $pair): string
    {
        return self::ended($this->ofKey($row), self::partOfPair($pair).self::part((string) $row->ordinal));
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
     * Of a row, and of all its cells that are findings, in their order.
     *
     * @param  list<string>  $partsOfPairs  as {@see partsOfPairs()} gives them; [] where no cell is asked for
     * @return array{string, list<string>}
     */
    public function ofRowAndCells(RowFinding $row, array $partsOfPairs): array
    {
        $key = $this->ofKey($row);
        $end = self::part((string) $row->ordinal);
        $cells = [];
        foreach ($partsOfPairs === [] ? [] : $row->cells as $cell) {
            $cells[] = self::ended(hash_copy($key), $partsOfPairs[$cell->pairPosition].$end);
        }

        return [self::ended($key, self::part($row->class->value).self::part((string) $row->side?->value).$end), $cells];
    }

    private static function partOfPair(ColumnPair $pair): string
    {
        return self::part($pair->id).self::part('');
    }

    private function ofKey(RowFinding $row): \HashContext
    {
        $hash = hash_copy($this->beginning);
        hash_update($hash, self::part(match ($row->class) {
            RowClass::Refused => (string) $row->refused?->digest,
            RowClass::Unkeyed => hash('sha256', implode(KeyTuple::SEPARATOR, $row->record()->cells ?? [])),
            default => (string) $row->key?->bytes(),
        }));

        return $hash;
    }

    /** Each part is led by its length, so that no two lists of parts meet. */
    private static function part(string $part): string
    {
        return strlen($part).':'.$part;
    }

    /** @return string the first 128 bits of SHA-256 as 32 hexadecimal digits */
    private static function ended(\HashContext $hash, string $parts): string
    {
        hash_update($hash, $parts);

        return substr(hash_final($hash), 0, 32);
    }
}
