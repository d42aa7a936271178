<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

use NineTally\Core\Row\Excerpt;

/** A regular expression of a person (PCRE, in Unicode), which may be wrong or go on without end. */
final readonly class SafePattern
{
    private const LONGEST = 1_000;

    /** Steps of matching for one cell; PHP's own limit is a million, which a cell can use up in a second. */
    private const BACKTRACKS = '100000';

    private function __construct(private string $written) {}

    /** @throws UnusableStep when it is no pattern */
    public static function of(string $pattern): self
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

        return new self($written);
    }

    /** @throws UnusableStep when the pattern takes too long */
    public function matches(string $text): bool
    {
        $earlier = ini_set('pcre.backtrack_limit', self::BACKTRACKS);
        $found = @preg_match($this->written, $text);
        ini_set('pcre.backtrack_limit', (string) $earlier);

        return $found === false ? throw $this->tooSlow() : $found === 1;
    }

    /** @throws UnusableStep */
    public function replace(string $text, string $with): string
    {
        $earlier = ini_set('pcre.backtrack_limit', self::BACKTRACKS);
        $replaced = @preg_replace($this->written, $with, $text);
        ini_set('pcre.backtrack_limit', (string) $earlier);

        return $replaced ?? throw $this->tooSlow();
    }

    /**
     * @return list<string> the groups of the first place that matches, without the whole; [] when nothing does
     *
     * @throws UnusableStep
     */
    public function groups(string $text): array
    {
        $earlier = ini_set('pcre.backtrack_limit', self::BACKTRACKS);
        $found = @preg_match($this->written, $text, $groups, PREG_UNMATCHED_AS_NULL);
        ini_set('pcre.backtrack_limit', (string) $earlier);
        if ($found === false) {
            throw $this->tooSlow();
        }

        return array_map(
            static fn(?string $group): string => $group ?? '',
            array_values(array_filter(array_slice($groups, 1), is_int(...), ARRAY_FILTER_USE_KEY)),
        );
    }

    private function tooSlow(): UnusableStep
    {
        return UnusableStep::because(
            sprintf(
                'The pattern %s takes too long on some value. Write it without repeats inside repeats, such as (a+)+.',
                trim($this->written, '~u'),
            ),
        );
    }
}
