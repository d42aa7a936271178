<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Forms;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\TextForm;

/**
 * Latin and Greek letters that differ in their marks alone: é and e, ł and l, ß and ss. In other scripts a mark makes another letter
 * (й is not и), so it stays.
 */
final readonly class Accents implements TextForm
{
    /** Letters whose mark is part of the letter, so that taking them apart (UAX #15, form NFD) does not part it. */
    private const STROKES = [
        'ł' => 'l',
        'Ł' => 'L',
        'ø' => 'o',
        'Ø' => 'O',
        'đ' => 'd',
        'Đ' => 'D',
        'ħ' => 'h',
        'Ħ' => 'H',
        'ŧ' => 't',
        'Ŧ' => 'T',
        'ƀ' => 'b',
        'Ƀ' => 'B',
        'ɨ' => 'i',
        'Ɨ' => 'I',
        'ı' => 'i',
        'ȷ' => 'j',
        'ɉ' => 'j',
        'Ɉ' => 'J',
        'ꝁ' => 'k',
        'Ꝁ' => 'K',
        'ɍ' => 'r',
        'Ɍ' => 'R',
        'ƶ' => 'z',
        'Ƶ' => 'Z',
        'ɇ' => 'e',
        'Ɇ' => 'E',
        'ǥ' => 'g',
        'Ǥ' => 'G',
        'ß' => 'ss',
        'ẞ' => 'SS',
    ];

    public function id(): CauseId
    {
        return CauseId::Accents;
    }

    public function canonical(string $value): string
    {
        if (preg_match('/[\x80-\xFF]/', $value) !== 1) {
            return $value;
        }

        return preg_replace_callback('/[\p{Latin}\p{Greek}]\p{Mn}*/u', self::plain(...), $value) ?? $value;
    }

    /** @param array<array-key, string> $letter with the marks that follow it */
    private static function plain(array $letter): string
    {
        if (strlen($letter[0]) === 1) {
            return $letter[0];
        }
        $parts = \Normalizer::normalize($letter[0], \Normalizer::FORM_D);

        return strtr(preg_replace('/\p{Mn}+/u', '', is_string($parts) ? $parts : $letter[0]) ?? $letter[0], self::STROKES);
    }
}
