<?php

declare(strict_types=1);

namespace NineTally\Core\Row;

/** What a message quotes of a file, a plan or a command: enough to find it by, however long it is. */
final readonly class Excerpt
{
    /** Characters. */
    public const MOST = 200;

    public static function of(string $text): string
    {
        // Four bytes a character at most: what is shorter need not be counted.
        return strlen($text) > self::MOST && mb_strlen($text) > self::MOST ? mb_substr($text, 0, self::MOST).'…' : $text;
    }

    /**
     * @param  list<string>  $texts
     * @return list<string>
     */
    public static function ofEach(array $texts): array
    {
        return array_map(self::of(...), $texts);
    }
}
