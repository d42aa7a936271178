<?php

declare(strict_types=1);

namespace App\Http\Requests\Access;

use App\Actions\Access\CommonPasswords;
use App\Actions\Access\PasswordLength;
use Closure;
use Illuminate\Contracts\Validation\ValidationRule;

/**
 * A password by NIST SP 800-63B-4: 15 to 128 characters of any kind (8 with a second factor), and none that is guessed early: common
 * words, runs and repetitions, and what is known of person, migration and product. Nothing is asked of its composition, and it does
 * not expire.
 */
final readonly class GoodPassword implements ValidationRule
{
    /** So many characters must be left when what is guessed early is taken away. */
    private const LEFT = 6;

    private const COMMON = [
        'password', 'passwort', 'passphrase', 'letmein', 'welcome', 'qwertyuiop', 'qwertz', 'qwerty', 'asdfghjkl', 'zxcvbnm', 'iloveyou',
        'administrator', 'admin', 'secret', 'dragon', 'monkey', 'football', 'baseball', 'sunshine', 'princess', 'superman', 'trustno',
        'changeme', 'default', 'correcthorsebatterystaple', 'abcdefghijklmnopqrstuvwxyz', 'nine', 'tally', 'migration', 'reconciliation',
    ];

    /** @param list<string> $known of the person and their work: name, address, names of migrations */
    public function __construct(private array $known = [], private bool $hasSecondFactor = false) {}

    public function validate(string $attribute, mixed $value, Closure $fail): void
    {
        $password = is_string($value) ? $value : '';
        $characters = mb_strlen($password);
        $shortest = $this->hasSecondFactor ? PasswordLength::SHORTEST_WITH_FACTOR : PasswordLength::SHORTEST;
        if ($characters < $shortest || $characters > PasswordLength::LONGEST) {
            $fail(
                sprintf(
                    'A password has %d to %d characters; this one has %d. Several words are easy to keep.',
                    $shortest,
                    PasswordLength::LONGEST,
                    $characters,
                ),
            );
        } elseif ($this->isGuessedEarly($password) || CommonPasswords::listed()->isMadeOf($password)) {
            $fail(
                'This password is guessed early: it is made of common words, runs, repetitions or names of yours. Choose other words.',
            );
        }
    }

    private function isGuessedEarly(string $password): bool
    {
        $left = mb_strtolower($password);
        $words = [...self::COMMON];
        foreach ($this->known as $known) {
            $words = [...$words, ...preg_split('/[^\p{L}\p{N}]+/u', mb_strtolower($known), -1, PREG_SPLIT_NO_EMPTY) ?: []];
        }
        foreach (array_filter($words, static fn(string $word): bool => mb_strlen($word) > 3) as $word) {
            $left = str_replace($word, '', $left);
        }
        // The same again and again, and runs such as 123456 or abcdef, count once.
        $left = (string) preg_replace('/[\s\p{P}]+/u', '', $left);
        $left = (string) preg_replace('/(.{1,10}?)\1+/u', '$1', $left);
        $kept = '';
        $before = null;
        foreach (mb_str_split($left) as $character) {
            $code = mb_ord($character);
            $kept .= $before !== null && abs($code - $before) <= 1 ? '' : $character;
            $before = $code;
        }

        return mb_strlen($kept) < self::LEFT;
    }
}
