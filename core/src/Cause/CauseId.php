<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

/** Why two values differ. The ids are part of every export and never change their meaning. */
enum CauseId: string
{
    case Spacing = 'spacing';
    case LetterCase = 'case';
    case NumberForm = 'number-form';
    case Blanked = 'blanked';
    case Filled = 'filled';
    case None = 'none';

    public function sentence(): string
    {
        return match ($this) {
            self::Spacing => 'spaces differ',
            self::LetterCase => 'capitals differ',
            self::NumberForm => 'same number, written differently',
            self::Blanked => 'blank in the target',
            self::Filled => 'blank in the source',
            self::None => 'no cause found',
        };
    }

    /** The sentence of an id as exports and the database hold it, such as "spacing+case". */
    public static function sentenceFor(string $ids): string
    {
        return implode(' and ', array_map(static fn(string $id): string => self::from($id)->sentence(), explode('+', $ids)));
    }
}
