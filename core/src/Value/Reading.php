<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

/** How one side's values of a column are read: what is blank, and the forms of numbers, dates and yes and no. */
final readonly class Reading
{
    public const YES = ['yes', 'y', 'true', 't', '1'];

    public const NO = ['no', 'n', 'false', 'f', '0'];

    /** @var array<string, bool> folded word => whether it means yes */
    private array $words;

    private int $longestWord;

    /** @var array<string, true> */
    private array $tokens;

    /**
     * @param  list<string>  $blankTokens  cells that mean "no value", byte for byte; the empty cell always does
     * @param  list<DateForm>  $dateForms  tried in this order; none: as IsoDate reads
     * @param  list<string>  $yes  words, capitals or not
     * @param  list<string>  $no
     */
    public function __construct(
        public Kind $kind = Kind::Text,
        public array $blankTokens = [],
        public NumberStyle $numbers = new NumberStyle,
        public array $dateForms = [],
        public array $yes = self::YES,
        public array $no = self::NO,
        public ?\DateTimeZone $zone = null,
    ) {
        $this->words =
            array_fill_keys(array_map(self::folded(...), $yes), true) + array_fill_keys(array_map(self::folded(...), $no), false);
        // Folding makes no word more than three times as long (The Unicode Standard, section 5.18).
        $this->longestWord = 3 * max(0, ...array_map(static fn(int|string $word): int => strlen((string) $word), array_keys($this->words)));
        $this->tokens = array_fill_keys($blankTokens, true);
    }

    public function isBlank(string $value): bool
    {
        return $value === '' || isset($this->tokens[$value]);
    }

    public function hasBlankTokens(): bool
    {
        return $this->tokens !== [];
    }

    /** For the kind number, spaces at the ends and leading zeros are part of the form. */
    public function number(string $value): ?Decimal
    {
        // Everything that is no number has a letter or a blank in its first byte, but for a few.
        $first = $value[0] ?? 'x';
        if ($first > '9' && $first < "\x80" && ! $this->numbers->mayBeginWithLetter) {
            return null;
        }
        $isKind = $this->kind === Kind::Number;

        return $this->numbers->read($isKind ? trim($value, ' ') : $value, $isKind);
    }

    public function moment(string $value): ?Moment
    {
        $found = $this->written($value);

        return $this->zone === null || $found === null ? $found : $found->inZone($this->zone);
    }

    /** Whether every time is an instant: a zone is declared, or all forms have an offset. Without a form, values may have one or not. */
    public function writesInstants(): bool
    {
        return $this->zone !== null ||
            ($this->dateForms !== [] && array_filter($this->dateForms, static fn(DateForm $form): bool => ! $form->hasOffset()) === []);
    }

    /** Whether no time is an instant. */
    public function writesClockTimes(): bool
    {
        return $this->zone === null &&
            $this->dateForms !== [] &&
            array_filter($this->dateForms, static fn(DateForm $form): bool => $form->hasOffset()) === [];
    }

    /** Whether the value is written as a time, but one that the clock of its zone goes forward over. */
    public function isSkipped(string $value): bool
    {
        return $this->zone !== null && $this->written($value) !== null && $this->moment($value) === null;
    }

    private function written(string $value): ?Moment
    {
        if ($this->dateForms === []) {
            $found = IsoDate::read($value);
        } else {
            $found = null;
            foreach ($this->dateForms as $form) {
                if (($found = $form->read($value)) !== null) {
                    break;
                }
            }
        }

        return $found;
    }

    /** @return bool|null null when the value means neither */
    public function yesOrNo(string $value): ?bool
    {
        return strlen($value) > $this->longestWord ? null : $this->words[self::folded($value)] ?? null;
    }

    /** Whether the value can be read as the kind says. Any text is text. */
    public function canRead(string $value): bool
    {
        return match ($this->kind) {
            Kind::Text => true,
            Kind::Number => $this->number($value) !== null,
            Kind::Date => $this->moment($value)?->isDay() === true,
            Kind::DateTime => $this->moment($value) !== null,
            Kind::YesNo => $this->yesOrNo($value) !== null,
        };
    }

    /** Whether both sides read alike, so that equal bytes are equal values. */
    public function isLike(self $other): bool
    {
        return $this->kind === $other->kind && $this->tokens == $other->tokens && match ($this->kind) {
            Kind::Text => true,
            Kind::Number => $this->numbers == $other->numbers,
            Kind::Date, Kind::DateTime => $this->dateForms == $other->dateForms && $this->zone == $other->zone,
            Kind::YesNo => $this->words == $other->words,
        };
    }

    private static function folded(string $word): string
    {
        return mb_convert_case($word, MB_CASE_FOLD, 'UTF-8');
    }
}
