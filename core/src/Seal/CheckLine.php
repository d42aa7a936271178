<?php

declare(strict_types=1);

namespace NineTally\Core\Seal;

/** One thing that was found of a pack. */
final readonly class CheckLine
{
    /**
     * @param  'fits'|'differs'|'unknown'  $state  unknown: nobody can tell from the pack alone
     * @param  string  $about  the file; '' for the pack as a whole
     */
    private function __construct(public string $state, public string $about, public string $words) {}

    public static function fits(string $words, string $about = ''): self
    {
        return new self('fits', $about, $words);
    }

    public static function differs(string $about, string $words): self
    {
        return new self('differs', $about, $words);
    }

    public static function unknown(string $words): self
    {
        return new self('unknown', '', $words);
    }
}
