<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Delimited;

use NineTally\Core\Intake\Encoding;
use NineTally\Core\Row\Excerpt;

/** How a delimited text is to be read: RFC 4180 quotes, a header in the first record unless it has none. */
final readonly class DelimitedFormat
{
    /** In the order in which a tie between them is decided. */
    public const DELIMITERS = [',' => 'comma', ';' => 'semicolon', "\t" => 'tab', '|' => 'bar'];

    /**
     * @param  non-empty-string  $delimiter  one byte of DELIMITERS
     * @param  bool  $hasHeader  else columns are called by their place
     * @param  int  $skipAbove  lines before the header, or the first record
     * @param  int  $skipBelow  lines after the last record, such as a trailer
     */
    public function __construct(
        public string $delimiter,
        public LineEnds $lineEnds,
        public bool $hasByteOrderMark = false,
        public Encoding $encoding = Encoding::Utf8,
        public bool $hasHeader = true,
        public int $skipAbove = 0,
        public int $skipBelow = 0,
    ) {}

    /** @return int bytes of the byte-order mark */
    public function markBytes(): int
    {
        return ! $this->hasByteOrderMark ? 0 : ($this->encoding === Encoding::Utf8 ? 3 : 2);
    }

    public function delimiterName(): string
    {
        return self::DELIMITERS[$this->delimiter] ?? $this->delimiter;
    }

    /**
     * @return array{delimiter: string, lineEnds: string, byteOrderMark: bool, encoding: string, header: bool, skipAbove: int,
     *     skipBelow: int}
     */
    public function toArray(): array
    {
        return [
            'delimiter' => $this->delimiterName(),
            'lineEnds' => $this->lineEnds->value,
            'byteOrderMark' => $this->hasByteOrderMark,
            'encoding' => $this->encoding->value,
            'header' => $this->hasHeader,
            'skipAbove' => $this->skipAbove,
            'skipBelow' => $this->skipBelow,
        ];
    }

    /**
     * @param array{delimiter?: string, lineEnds?: string, byteOrderMark?: bool, encoding?: string, header?: bool, skipAbove?: int,
     *     skipBelow?: int} $found as toArray() writes it; what is not there is as it would be by itself
     */
    public static function fromArray(array $found): self
    {
        return (new self(
            ',',
            LineEnds::from($found['lineEnds'] ?? LineEnds::Lf->value),
            $found['byteOrderMark'] ?? false,
            Encoding::from($found['encoding'] ?? Encoding::Utf8->value),
            $found['header'] ?? true,
            $found['skipAbove'] ?? 0,
            $found['skipBelow'] ?? 0,
        ))->with(delimiterName: $found['delimiter'] ?? null);
    }

    /** What a person corrected; null keeps what was found. */
    public function with(
        ?string $delimiterName = null,
        ?LineEnds $lineEnds = null,
        ?Encoding $encoding = null,
        ?bool $hasHeader = null,
        ?int $skipAbove = null,
        ?int $skipBelow = null,
    ): self {
        $delimiter = $delimiterName === null ? $this->delimiter : array_search($delimiterName, self::DELIMITERS, true);

        return is_string($delimiter)
            ? new self(
                $delimiter,
                $lineEnds ?? $this->lineEnds,
                $this->hasByteOrderMark && ($encoding ?? $this->encoding) === $this->encoding,
                $encoding ?? $this->encoding,
                $hasHeader ?? $this->hasHeader,
                $skipAbove ?? $this->skipAbove,
                $skipBelow ?? $this->skipBelow,
            )
            : throw new \UnexpectedValueException(
                sprintf('A delimiter is one of %s, not "%s".', implode(', ', self::DELIMITERS), Excerpt::of($delimiterName)),
            );
    }
}
