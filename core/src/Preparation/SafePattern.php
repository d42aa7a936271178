<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

use NineTally\Core\Row\Excerpt;

/** A regular expression of a person (PCRE, in Unicode), which may be wrong or go on without end. */
final class SafePattern
{
    private const LONGEST = 1_000;

    /**
     * Steps of matching that are tried for one cell, one after the other; the last is a tenth of PHP's own limit, and takes some five
     * milliseconds at most.
     */
    private const BACKTRACKS = [1_000, 10_000, 100_000];

    /** Beyond what most cells need: half a minute, whatever the number of cells; and for long cells their bytes times this. */
    public const MOST_OF_RUN = 1_000_000_000;

    private const OF_BYTE = 20;

    private function __construct(private readonly string $written, private int $left) {}

    /** @throws UnusableStep when it is no pattern */
    public static function of(string $pattern, int $most = self::MOST_OF_RUN): self
    {
        if (strlen($pattern) > self::LONGEST) {
            throw UnusableStep::because(sprintf('The pattern is longer than %d characters.', self::LONGEST));
        }
        $written = '~'.preg_replace('/(?<!\\\\)((?:\\\\\\\\)*)~/', '$1\\~', $pattern).'~u';
        if (@preg_match($written, '') === false) {
            throw UnusableStep::because(
                sprintf(
                    '"%s" is no pattern: %s.',
                    Excerpt::of($pattern),
                    preg_replace('/^preg_match\(\): (Compilation failed: )?/', '', error_get_last()['message'] ?? 'it cannot be read'),
                ),
            );
        }

        return new self($written, $most);
    }

    /** @throws UnusableStep when the pattern takes too long */
    public function matches(string $text): bool
    {
        return $this->bounded($text, fn(): int|false => @preg_match($this->written, $text)) === 1;
    }

    /** @throws UnusableStep when the pattern takes too long */
    public function replace(string $text, string $with): string
    {
        return $this->bounded($text, fn(): string|false => @preg_replace($this->written, $with, $text) ?? false);
    }

    /**
     * @return list<string> the groups of the first place that matches, without the whole; [] when nothing does
     *
     * @throws UnusableStep when the pattern takes too long
     */
    public function groups(string $text): array
    {
        $groups = $this->bounded(
            $text,
            fn(): array|false => @preg_match($this->written, $text, $found, PREG_UNMATCHED_AS_NULL) === false ? false : $found,
        );

        return array_map(
            static fn(?string $group): string => $group ?? '',
            array_values(array_filter(array_slice($groups, 1), is_int(...), ARRAY_FILTER_USE_KEY)),
        );
    }

    /**
     * @template Found of int|string|array<array-key, string|null>
     *
     * @param  \Closure(): (Found|false)  $search
     * @return Found
     *
     * @throws UnusableStep when it takes too long, on this cell or on all so far
     */
    private function bounded(string $text, \Closure $search): int|string|array
    {
        $this->left = min(self::MOST_OF_RUN, $this->left + self::OF_BYTE * strlen($text));
        $earlier = (string) ini_get('pcre.backtrack_limit');
        try {
            foreach (self::BACKTRACKS as $steps) {
                ini_set('pcre.backtrack_limit', (string) $steps);
                $found = $search();
                if ($found !== false) {
                    return $found;
                }
                $this->left -= $steps * 10;
                if ($this->left < 0) {
                    break;
                }
            }
        } finally {
            ini_set('pcre.backtrack_limit', $earlier);
        }
        throw $this->tooSlow();
    }

    private function tooSlow(): UnusableStep
    {
        return UnusableStep::because(
            sprintf(
                'The pattern %s takes too long on %s. Write it without repeats inside repeats, such as (a+)+.',
                trim($this->written, '~u'),
                $this->left < 0 ? 'so many values' : 'some value',
            ),
        );
    }
}
