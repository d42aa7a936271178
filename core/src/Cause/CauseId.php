<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

/** Why two values differ, in the order in which causes are tried. The ids are part of every export and never change their meaning. */
enum CauseId: string
{
    case Unreadable = 'unreadable';
    case Spacing = 'spacing';
    case Invisible = 'invisible';
    case LineEnds = 'line-ends';
    case LetterCase = 'case';
    case Unicode = 'unicode';
    case Accents = 'accents';
    case Punctuation = 'punctuation';
    case LeadingZeros = 'leading-zeros';
    case NumberForm = 'number-form';
    case DateForm = 'date-form';
    case YesNoForm = 'yes-no-form';
    case BlankToken = 'blank-token';
    case Crosswalk = 'crosswalk';
    case Tolerance = 'tolerance';
    case Rounding = 'rounding';
    case Sign = 'sign';
    case Scale = 'scale';
    case Truncated = 'truncated';
    case DayMonth = 'day-month';
    case Offset = 'offset';
    case DateShift = 'date-shift';
    case Translated = 'translated';
    case Moved = 'moved';
    case Encoding = 'encoding';
    case Blanked = 'blanked';
    case Filled = 'filled';
    case NearText = 'near-text';
    case Untranslated = 'untranslated';
    case None = 'none';

    /** Only the form differs: a plan may forgive it. */
    public function isOfForm(): bool
    {
        return match ($this) {
            self::Spacing,
            self::Invisible,
            self::LineEnds,
            self::LetterCase,
            self::Unicode,
            self::Accents,
            self::Punctuation,
            self::LeadingZeros,
            self::NumberForm,
            self::DateForm,
            self::YesNoForm,
            self::BlankToken
                => true,
            default => false,
        };
    }

    /** Can only be told when all cells of the column pair are known. */
    public function isOfWholeColumn(): bool
    {
        return match ($this) {
            self::Truncated, self::Offset, self::DateShift, self::Translated, self::Moved => true,
            default => false,
        };
    }

    /** What a reader is told when there are no figures. */
    public function meaning(): string
    {
        return match ($this) {
            self::Unreadable => 'cannot be read as its kind',
            self::Spacing => 'spaces differ',
            self::Invisible => 'invisible characters differ',
            self::LineEnds => 'line ends differ',
            self::LetterCase => 'capitals differ',
            self::Unicode => 'the same letters in another Unicode form',
            self::Accents => 'the same letters with other marks',
            self::Punctuation => 'hyphens, dots or quotes of another kind',
            self::LeadingZeros => 'leading zeros differ',
            self::NumberForm => 'same number, written differently',
            self::DateForm => 'same date, written differently',
            self::YesNoForm => 'same yes or no, written differently',
            self::BlankToken => 'both blank, written differently',
            self::Crosswalk => 'as the crosswalk says',
            self::Tolerance => 'within the declared tolerance',
            self::Rounding => 'rounded or cut',
            self::Sign => 'negated',
            self::Scale => 'a power of ten too large or too small',
            self::Truncated => 'cut',
            self::DayMonth => 'day and month swapped',
            self::Offset => 'a number plus or minus one constant',
            self::DateShift => 'shifted in time',
            self::Translated => 'each source value always becomes the same target value, judged among the cells that differ',
            self::Moved => 'the value stands in another column',
            self::Encoding => 'letters broken by a wrong encoding',
            self::Blanked => 'blank in the target',
            self::Filled => 'blank in the source',
            self::NearText => 'a few letters differ',
            self::Untranslated => 'still the value of the source, where the crosswalk has an entry',
            self::None => 'no cause found',
        };
    }

    /**
     * The sentence of an id as exports and the database hold it, such as "spacing+case".
     *
     * @param  array<string, string|int>  $facts
     */
    public static function sentenceFor(string $ids, array $facts = []): string
    {
        return (new CauseSentence($facts))->of(array_map(self::from(...), explode('+', $ids)));
    }
}
