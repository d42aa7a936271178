<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

/** How a delimited text is to be read: a header in the first record, RFC 4180 quotes. */
final readonly class DelimitedFormat
{
    /** In the order in which a tie between them is decided. */
    public const DELIMITERS = [',' => 'comma', ';' => 'semicolon', "\t" => 'tab', '|' => 'bar'];

    /** @param non-empty-string $delimiter one byte of DELIMITERS */
    public function __construct(public string $delimiter, public LineEnds $lineEnds, public bool $hasByteOrderMark = false, public Encoding $encoding = Encoding::Utf8) {}

    /** @return int bytes of the byte-order mark */
    public function markBytes(): int
    {
        return ! $this->hasByteOrderMark ? 0 : ($this->encoding === Encoding::Utf8 ? 3 : 2);
    }

    public function delimiterName(): string
    {
        return self::DELIMITERS[$this->delimiter] ?? $this->delimiter;
    }

    /** @return array{delimiter: string, lineEnds: string, byteOrderMark: bool, encoding: string} */
    public function toArray(): array
    {
        return ['delimiter' => $this->delimiterName(), 'lineEnds' => $this->lineEnds->value, 'byteOrderMark' => $this->hasByteOrderMark, 'encoding' => $this->encoding->value];
    }

    /** @param array{delimiter: string, lineEnds: string, byteOrderMark: bool, encoding?: string} $found as toArray() writes it; what was kept before encodings were told apart is UTF-8 */
    public static function fromArray(array $found): self
    {
        return (new self(',', LineEnds::from($found['lineEnds']), $found['byteOrderMark'], Encoding::from($found['encoding'] ?? Encoding::Utf8->value)))->with(delimiterName: $found['delimiter']);
    }

    /** What a person corrected; null keeps what was found. */
    public function with(?string $delimiterName = null, ?LineEnds $lineEnds = null): self
    {
        $delimiter = $delimiterName === null ? $this->delimiter : array_search($delimiterName, self::DELIMITERS, true);

        return is_string($delimiter)
            ? new self($delimiter, $lineEnds ?? $this->lineEnds, $this->hasByteOrderMark, $this->encoding)
            : throw new \UnexpectedValueException(sprintf('A delimiter is one of %s, not "%s".', implode(', ', self::DELIMITERS), $delimiterName));
    }
}
