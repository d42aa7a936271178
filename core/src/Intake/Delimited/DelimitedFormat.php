<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Delimited;

use NineTally\Core\Intake\Encoding;
use NineTally\Core\Row\Excerpt;

/** How a delimited text is to be read: quotes as in RFC 4180, or single ones, a header in the first record unless it has none. */
final readonly class DelimitedFormat
{
    /** In the order in which a tie between them is decided. */
    public const DELIMITERS = [',' => 'comma', ';' => 'semicolon', "\t" => 'tab', '|' => 'bar'];

    /** Further ones that divide tables now and then, by the names that they go by; all else is called by itself. */
    public const RARE = [
        '^' => '^', '~' => '~', "\x1F" => 'unit separator', "\x01" => 'start of heading', '!' => '!', '#' => '#', '*' => '*', ':' => ':',
        '&' => '&', '$' => '$', '%' => '%', '@' => '@', '\\' => '\\', '+' => '+', '=' => '=',
    ];

    /**
     * @param  non-empty-string  $delimiter  one byte, of DELIMITERS or {@see delimiterNamed()}
     * @param  bool  $hasHeader  else columns are called by their place
     * @param  int  $skipAbove  lines before the header, or the first record
     * @param  int  $skipBelow  lines after the last record, such as a trailer
     * @param  QuoteSign  $quote  between which cells may stand
     */
    public function __construct(
        public string $delimiter,
        public LineEnds $lineEnds,
        public bool $hasByteOrderMark = false,
        public Encoding $encoding = Encoding::Utf8,
        public bool $hasHeader = true,
        public int $skipAbove = 0,
        public int $skipBelow = 0,
        public QuoteSign $quote = QuoteSign::Double,
    ) {}

    /** @return int bytes of the byte-order mark */
    public function markBytes(): int
    {
        return ! $this->hasByteOrderMark ? 0 : ($this->encoding === Encoding::Utf8 ? 3 : 2);
    }

    public function delimiterName(): string
    {
        return (self::DELIMITERS + self::RARE)[$this->delimiter] ?? $this->delimiter;
    }

    /** @return non-empty-string|null one byte; null for what divides no table: letters, digits, quotes, blanks, points, longer names */
    public static function delimiterNamed(string $name): ?string
    {
        $known = array_search($name, self::DELIMITERS + self::RARE, true);

        return match (true) {
            is_string($known) => $known,
            preg_match('/^[!#$%&()*+\/:<=>?@\[\\\]^`{}~\x01-\x08\x1C-\x1F-]$/D', $name) === 1 => $name,
            default => null,
        };
    }

    /**
     * @return array{delimiter: string, lineEnds: string, byteOrderMark: bool, encoding: string, header: bool, skipAbove: int,
     *     skipBelow: int, quote?: string}
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
            ...$this->quote === QuoteSign::Double ? [] : ['quote' => $this->quote->value],
        ];
    }

    /**
     * @param array{delimiter?: string, lineEnds?: string, byteOrderMark?: bool, encoding?: string, header?: bool, skipAbove?: int,
     *     skipBelow?: int, quote?: string} $found as toArray() writes it; what is not there is as it would be by itself
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
            QuoteSign::from($found['quote'] ?? QuoteSign::Double->value),
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
        ?QuoteSign $quote = null,
    ): self {
        $delimiter = $delimiterName === null ? $this->delimiter : self::delimiterNamed($delimiterName);

        return $delimiter !== null
            ? new self(
                $delimiter,
                $lineEnds ?? $this->lineEnds,
                $this->hasByteOrderMark && ($encoding ?? $this->encoding) === $this->encoding,
                $encoding ?? $this->encoding,
                $hasHeader ?? $this->hasHeader,
                $skipAbove ?? $this->skipAbove,
                $skipBelow ?? $this->skipBelow,
                $quote ?? $this->quote,
            )
            : throw new \UnexpectedValueException(
                sprintf(
                    'A delimiter is %s, or another sign of one byte, not "%s".',
                    implode(', ', self::DELIMITERS),
                    Excerpt::of($delimiterName),
                ),
            );
    }
}
