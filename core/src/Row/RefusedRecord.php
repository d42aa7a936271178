<?php

declare(strict_types=1);

namespace NineTally\Core\Row;

/** A record that could not become a row. It is listed with its place and raw text, and is never dropped in silence. */
final readonly class RefusedRecord
{
    /**
     * @param  array<string, string|int>  $facts  as the reason names them
     * @param  string  $raw  the bytes of the record, cut at RAW_LIMIT; not always valid UTF-8
     */
    private function __construct(
        public int $line,
        public RefusalReason $reason,
        public array $facts,
        public string $raw,
        public string $digest,
        public int $part = 1,
    ) {}

    /** Enough to recognise a record by; a record may be as large as the row limit or larger. */
    public const RAW_LIMIT = 4096;

    /** @param array<string, string|int> $facts as the reason names them */
    public static function because(int $line, RefusalReason $reason, array $facts, string $raw): self
    {
        return new self($line, $reason, $facts, substr($raw, 0, self::RAW_LIMIT), hash('sha256', $raw));
    }

    /** The same record with what stands for its text, for whoever may not see it. */
    public function withText(string $text): self
    {
        return new self($this->line, $this->reason, $this->facts, $text, $this->digest, $this->part);
    }

    /**
     * What is written aside of a record, beside its place.
     *
     * @return array{reason: string, facts: array<string, string|int>, raw: string, digest: string}
     */
    public function aside(): array
    {
        return ['reason' => $this->reason->value, 'facts' => $this->facts, 'raw' => $this->raw, 'digest' => $this->digest];
    }

    /** @param array{reason: string, facts: array<string, string|int>, raw: string, digest: string} $aside */
    public static function restored(int $line, array $aside, int $part = 1): self
    {
        return new self($line, RefusalReason::from($aside['reason']), $aside['facts'], $aside['raw'], $aside['digest'], $part);
    }

    /** The raw text with every undecodable byte written as its hexadecimal value, so that it can be shown and exported. */
    public function readableRaw(): string
    {
        if (mb_check_encoding($this->raw, 'UTF-8')) {
            return $this->raw;
        }
        $readable = '';
        foreach (preg_split('/([\x80-\xFF]+)/', $this->raw, -1, PREG_SPLIT_DELIM_CAPTURE) ?: [] as $position => $piece) {
            $readable .=
                $position % 2 === 0 || mb_check_encoding($piece, 'UTF-8') ? $piece : '\x'.implode('\x', str_split(bin2hex($piece), 2));
        }

        return $readable;
    }
}
