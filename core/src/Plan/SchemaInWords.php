<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

use Opis\JsonSchema\Errors\ValidationError;

/**
 * What does not follow the schema of plans, for somebody who works on a screen: the place by what stands there, and what is wrong in words.
 */
final readonly class SchemaInWords
{
    /** What stands in a list of the plan, each counted from 1. */
    private const LISTED = [
        'key' => 'column of the key',
        'columnPairs' => 'column pair',
        'bridges' => 'bridge',
        'refusedBridges' => 'refused bridge',
        'keptRows' => 'row chosen by hand',
        'equivalents' => 'word that means the same',
        'totals' => 'control total',
        'records' => 'required record',
        'limits' => 'limit',
    ];

    /** The place as a person knows it: "step 3 of the source". */
    public static function place(string $pointer): string
    {
        $parts = array_map(
            static fn(string $part): string => strtr($part, ['~1' => '/', '~0' => '~']),
            array_slice(explode('/', $pointer), 1),
        );
        [$first, $second, $third] = [$parts[0] ?? '', $parts[1] ?? '', $parts[2] ?? ''];
        $whose = $first === 'references' ? "the reference {$second}" : "the {$second}";

        return match (true) {
            isset(self::LISTED[$first]) => self::LISTED[$first].' '.((int) $second + 1),
            ! in_array($first, ['sides', 'references'], true) => $first === '' ? 'the plan' : self::words($first),
            $third === 'preparation' => 'step '.((int) ($parts[3] ?? '0') + 1)." of {$whose}",
            $third === 'columns' => "how {$whose} writes ".($parts[3] ?? 'its columns'),
            $third === 'repeats' => "what becomes of repeated rows of {$whose}",
            default => "how {$whose} writes its values",
        };
    }

    /** What is wrong there, such as "lacks valid from". */
    public static function problem(ValidationError $error): string
    {
        $arguments = $error->args();
        $named = static fn(string $argument): string => implode(
            ', ',
            array_map(self::words(...), array_filter((array) ($arguments[$argument] ?? []), is_string(...))),
        );

        return match ($error->keyword()) {
            'required' => "lacks {$named('missing')}",
            'additionalProperties', 'unevaluatedProperties' => "has what no plan knows: {$named('properties')}",
            'enum', 'const' => 'has a value that is none of those that a plan knows',
            'type' => "should be {$named('expected')}",
            'minItems', 'minLength' => 'names nothing yet',
            'maxItems', 'maxLength' => 'is longer than a plan may be',
            'uniqueItems' => 'names something twice',
            'minimum', 'exclusiveMinimum' => 'is too small a number',
            'maximum', 'exclusiveMaximum' => 'is too large a number',
            'pattern', 'format' => 'is not written as it must be',
            default => 'is not as a plan has it',
        };
    }

    /** "valuesInto" as "values into". */
    private static function words(string $name): string
    {
        return strtolower((string) preg_replace('/(?<=[a-z])(?=[A-Z])/', ' ', $name));
    }
}
