<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Objects;

/**
 * One JSON object as the cells of a row. Null is a blank cell, true and false are those words, a nested object's
 * cells are called by their path ("holder.name"), a list is its compact JSON, and a number is the text as it was written: it never becomes
 * a float (RFC 8259, section 6, leaves its size open).
 */
final readonly class JsonObject
{
    private const STRING_OR_NUMBER = '/"(?:[^"\\\\]|\\\\.)*+"|-?\d[\d.eE+\-]*/s';

    private const NUMBER = '/^-?(?:0|[1-9]\d*)(?:\.\d+)?(?:[eE][+\-]?\d+)?$/D';

    /** Leads a number while it is carried as a string; a noncharacter of Unicode, so no text begins with it. */
    private const NUMBER_MARK = "\u{FDD0}";

    /** @param array<string, string> $cells by property name */
    private function __construct(public array $cells) {}

    /** @return self|string the object, or why the text is no JSON; '' where it is JSON of another kind */
    public static function read(string $json): self|string
    {
        $carried = preg_replace_callback(
            self::STRING_OR_NUMBER,
            static fn(array $found): string => $found[0][0] !== '"' && preg_match(self::NUMBER, $found[0]) === 1
                ? '"'.self::NUMBER_MARK.$found[0].'"'
                : $found[0],
            $json,
        );
        $object = json_decode($carried ?? '', false, 512);
        if (! $object instanceof \stdClass) {
            return json_last_error() === JSON_ERROR_NONE ? '' : json_last_error_msg();
        }
        $cells = [];
        self::flatten($object, '', $cells);

        return new self($cells);
    }

    /** @param array<string, string> $cells */
    private static function flatten(\stdClass $object, string $path, array &$cells): void
    {
        foreach (get_object_vars($object) as $name => $value) {
            if ($value instanceof \stdClass && get_object_vars($value) !== []) {
                self::flatten($value, "{$path}{$name}.", $cells);
            } else {
                $cells[$path.$name] = self::cell($value);
            }
        }
    }

    private static function cell(mixed $value): string
    {
        return match (true) {
            $value === null => '',
            is_bool($value) => $value ? 'true' : 'false',
            is_string($value) => str_starts_with($value, self::NUMBER_MARK) ? substr($value, strlen(self::NUMBER_MARK)) : $value,
            default => (string) preg_replace(
                '/"'.self::NUMBER_MARK.'([^"]*)"/u',
                '$1',
                (string) json_encode($value, JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES),
            ),
        };
    }
}
