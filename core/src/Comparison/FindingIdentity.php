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
    /** @param string $keyDefinition as Plan::keyDefinition() gives it */
    public function __construct(private string $dataset, private string $keyDefinition) {}

    public function ofRow(RowFinding $row): string
    {
        return $this->hash($this->known($row), $row->class->value, (string) $row->side?->value, (string) $row->ordinal);
    }

    public function ofCell(RowFinding $row, ColumnPair $pair): string
    {
        return $this->hash($this->known($row), $pair->id, '', (string) $row->ordinal);
    }

    private function known(RowFinding $row): string
    {
        return match ($row->class) {
            RowClass::Refused => (string) $row->refused?->digest,
            RowClass::Unkeyed => hash('sha256', implode(KeyTuple::SEPARATOR, $row->record()->cells ?? [])),
            default => (string) $row->key?->bytes(),
        };
    }

    /**
     * @return string the first 128 bits of SHA-256 as 32 hexadecimal digits; each part is led by its length, so that no two lists of parts
     *     meet
     */
    private function hash(string ...$parts): string
    {
        $message = '';
        foreach ([$this->dataset, $this->keyDefinition, ...$parts] as $part) {
            $message .= strlen($part).':'.$part;
        }

        return substr(hash('sha256', $message), 0, 32);
    }
}
