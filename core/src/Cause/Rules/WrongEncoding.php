<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Rules;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\CauseRule;
use NineTally\Core\Comparison\CellPair;

/** Bytes read in the wrong encoding on their way (Thornøy, ThornÃ¸y), or letters that an encoding could not hold (Thorn?y). */
final readonly class WrongEncoding implements CauseRule
{
    /** Encodings of one byte a character that UTF-8 is often read in by mistake. */
    private const MISREAD_AS = ['Windows-1252', 'ISO-8859-1', 'ISO-8859-15', 'CP850'];

    private const LOST = ['?' => '\?', 'U+FFFD' => '\x{FFFD}'];

    private const LONGEST = 2_000;

    public function id(): CauseId
    {
        return CauseId::Encoding;
    }

    public function facts(CellPair $pair): ?array
    {
        if (strlen($pair->source) > self::LONGEST || strlen($pair->target) > self::LONGEST) {
            return null;
        }

        return $this->broken($pair->source, $pair->target, 'target') ?? $this->broken($pair->target, $pair->source, 'source');
    }

    /** @return array<string, string>|null */
    private function broken(string $whole, string $broken, string $side): ?array
    {
        if (preg_match('/[\x80-\xFF]/', $whole) !== 1) {
            return null;
        }
        foreach (self::MISREAD_AS as $encoding) {
            if (mb_convert_encoding($whole, 'UTF-8', $encoding) === $broken) {
                return ['read_as' => $encoding, 'side' => $side];
            }
        }
        foreach (self::LOST as $name => $mark) {
            // A letter becomes one mark, or one for each of its bytes; letters of the old encoding may have survived.
            $expected = preg_replace_callback(
                '/[^\x00-\x7F]|[\x00-\x7F]+/u',
                static fn(array $found): string => $found[0][0] < "\x80"
                    ? preg_quote($found[0], '/')
                    : '(?:'.preg_quote($found[0], '/')."|{$mark}{1,".strlen($found[0]).'})',
                $whole,
            );
            if (preg_match("/^{$expected}\$/uD", $broken) === 1) {
                return ['lost_to' => $name, 'side' => $side];
            }
        }

        return null;
    }
}
