<?php

declare(strict_types=1);

namespace NineTally\Core\Repeats;

use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\Side;

/**
 * Which row a person keeps of those of a side that share a key. It holds as long as these rows are the same, wherever they stand and in
 * whatever order: they are known by their SHA-256, for a plan shall not hold whole rows.
 *
 * @phpstan-type ChosenDocument array{side: 'source'|'target', key: list<string>, group: string, row: string, reason: string}
 */
final readonly class ChosenRow
{
    /**
     * @param  list<string>  $key  of its rows, as one of them was prepared
     * @param  string  $group  of all rows: {@see groupDigest()}
     * @param  string  $row  of the one that is kept: {@see rowDigest()}
     */
    public function __construct(public Side $side, public array $key, public string $group, public string $row, public string $reason) {}

    /** @param ChosenDocument $document */
    public static function fromArray(array $document): self
    {
        return new self(Side::from($document['side']), $document['key'], $document['group'], $document['row'], $document['reason']);
    }

    /** @param string $cells of the prepared row, joined by KeyTuple::SEPARATOR */
    public static function rowDigest(string $cells): string
    {
        return hash('sha256', $cells);
    }

    /** @param list<string> $rows their digests, in any order */
    public static function groupDigest(array $rows): string
    {
        sort($rows, SORT_STRING);

        return hash('sha256', implode("\n", $rows));
    }

    /** @return string what no two choices of a plan have in common */
    public function identity(): string
    {
        return $this->side->value.KeyTuple::SEPARATOR.implode(KeyTuple::SEPARATOR, $this->key);
    }

    /** @return ChosenDocument */
    public function toArray(): array
    {
        return [
            'side' => $this->side->value, 'key' => $this->key, 'group' => $this->group, 'row' => $this->row, 'reason' => $this->reason,
        ];
    }
}
