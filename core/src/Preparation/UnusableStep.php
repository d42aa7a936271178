<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

use NineTally\Core\NineTallyException;
use NineTally\Core\Row\Excerpt;

/** A step that does not fit what comes into it. It stops the tally rather than giving wrong figures. */
final class UnusableStep extends \RuntimeException implements NineTallyException
{
    private const NEAR = 3;

    /** @param list<string> $existing */
    public static function withoutColumn(string $name, array $existing): self
    {
        $nearest = null;
        $least = self::NEAR + 1;
        foreach ($existing as $candidate) {
            // levenshtein() counts bytes, which is near enough to find a name that was meant.
            $edits = levenshtein(mb_strtolower(mb_strcut($name, 0, 200)), mb_strtolower(mb_strcut($candidate, 0, 200)));
            if ($edits < $least) {
                [$nearest, $least] = [$candidate, $edits];
            }
        }

        return new self(
            sprintf(
                'There is no column "%s" at this step. %s',
                Excerpt::of($name),
                $nearest === null
                    ? 'The columns here are: '.implode(', ', Excerpt::ofEach(array_slice($existing, 0, 30))).'.'
                    : sprintf('The nearest is "%s".', Excerpt::of($nearest)),
            ),
        );
    }

    public static function withTakenName(string $name): self
    {
        return new self(sprintf('There is a column "%s" already at this step. Choose another name.', Excerpt::of($name)));
    }

    public static function because(string $sentence): self
    {
        return new self($sentence);
    }

    /** The same, with the place of the step. */
    public function at(string $side, int $number, string $sentence): self
    {
        return new self(sprintf('Step %d of the %s (%s): %s', $number, $side, Excerpt::of($sentence), $this->getMessage()));
    }

    public function code(): string
    {
        return 'unusable-step';
    }
}
