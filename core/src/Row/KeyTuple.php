<?php

declare(strict_types=1);

namespace NineTally\Core\Row;

/** The key of a row: a tuple of cells, never a joined string, so that ("1", "23") and ("12", "3") stay different keys. */
final readonly class KeyTuple
{
    /**
     * 0xFF occurs in no valid UTF-8 text (RFC 3629, section 1), so joining cells with it is injective.
     * The same byte separates cells wherever rows are written aside.
     */
    public const SEPARATOR = "\xFF";

    /** @param list<string> $cells */
    private function __construct(public array $cells) {}

    /** @param list<string> $cells UTF-8 */
    public static function of(array $cells): self
    {
        return new self($cells);
    }

    public static function fromBytes(string $bytes): self
    {
        return new self(explode(self::SEPARATOR, $bytes));
    }

    /** The tuple that asCsv() wrote. */
    public static function fromCsv(string $csv): self
    {
        return new self(array_map(static fn(?string $cell): string => (string) $cell, str_getcsv($csv, ',', '"', '')));
    }

    /** Equal exactly when the tuples are equal. Not text: for maps and files of the engine only. */
    public function bytes(): string
    {
        return implode(self::SEPARATOR, $this->cells);
    }

    /** A row is unkeyed only when every key cell is blank; a partly blank key is a key. */
    public function isBlank(): bool
    {
        return implode('', $this->cells) === '';
    }

    /** One RFC 4180 record without line end: the canonical text of a key in lists, exports and the database. */
    public function asCsv(): string
    {
        // Most keys have nothing that would have to be quoted.
        if (strpbrk(implode('', $this->cells), ",\"\r\n\t\v\0 ") === false) {
            return implode(',', $this->cells);
        }

        return implode(',', array_map(
            static fn(string $cell): string => strpbrk($cell, ",\"\r\n") === false && $cell === trim($cell)
                ? $cell
                : '"'.str_replace('"', '""', $cell).'"',
            $this->cells,
        ));
    }
}
