<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Delimited;

/** Between which signs the cells of a delimited text may stand. */
enum QuoteSign: string
{
    case Double = 'double';
    case Single = 'single';

    /** @return non-empty-string one byte */
    public function sign(): string
    {
        return $this === self::Double ? '"' : "'";
    }

    /**
     * A text as if double quotes were its quotes, and what was read of it as it was written: both signs change places, so that all that
     * reads quotes knows one kind of them. It undoes itself.
     */
    public function exchanged(string $text): string
    {
        return $this === self::Double ? $text : strtr($text, "'\"", "\"'");
    }
}
