<?php

declare(strict_types=1);

namespace App\Actions\Access;

/** Passwords that leaked often, and so are tried first (NIST SP 800-63B-4, 3.1.1.2); bin/start makes the list from a package. */
final readonly class CommonPasswords
{
    /** @param array<array-key, true> $known in small letters */
    public function __construct(private array $known) {}

    public static function listed(): self
    {
        /** @var array<array-key, true> $known */
        $known = require base_path('bootstrap/cache/common-passwords.php');

        return new self($known);
    }

    /** Whether it is one of them, two of them, or one with digits and signs at its ends. */
    public function isMadeOf(string $password): bool
    {
        $small = mb_strtolower($password);
        $bare = (string) preg_replace('/^[^\p{L}]+|[^\p{L}]+$/u', '', $small);
        foreach (array_unique([$small, $bare]) as $word) {
            if (isset($this->known[$word])) {
                return true;
            }
            for ($at = 1; $at < strlen($word); $at++) {
                if (isset($this->known[substr($word, 0, $at)], $this->known[substr($word, $at)])) {
                    return true;
                }
            }
        }

        return false;
    }
}
