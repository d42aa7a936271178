<?php

declare(strict_types=1);

namespace NineTally\Core\Row;

/** A record that could not become a row. It is listed with its place and raw text, and is never dropped in silence. */
final readonly class RefusedRecord
{
    /** @param string $raw the bytes of the record, cut at RAW_LIMIT; not always valid UTF-8 */
    private function __construct(
        public int $line,
        public RefusalReason $reason,
        public string $sentence,
        public string $raw,
        public string $digest,
        public int $part = 1,
    ) {}

    /** Enough to recognise a record by; a record may be as large as the row limit or larger. */
    public const RAW_LIMIT = 4096;

    public static function because(int $line, RefusalReason $reason, string $sentence, string $raw): self
    {
        return new self($line, $reason, $sentence, substr($raw, 0, self::RAW_LIMIT), hash('sha256', $raw));
    }

    /** A record as it was written aside. */
    public static function restored(int $line, RefusalReason $reason, string $sentence, string $raw, string $digest, int $part = 1): self
    {
        return new self($line, $reason, $sentence, $raw, $digest, $part);
    }

    /** The raw text with every undecodable byte written as its hexadecimal value, so that it can be shown and exported. */
    public function readableRaw(): string
    {
        if (mb_check_encoding($this->raw, 'UTF-8')) {
            return $this->raw;
        }
        $readable = '';
        foreach (preg_split('/([\x80-\xFF]+)/', $this->raw, -1, PREG_SPLIT_DELIM_CAPTURE) ?: [] as $position => $piece) {
            $readable .= $position % 2 === 0 || mb_check_encoding($piece, 'UTF-8') ? $piece : '\x'.implode('\x', str_split(bin2hex($piece), 2));
        }

        return $readable;
    }
}
