<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Plan\Problem;
use NineTally\Core\Plan\UnusablePlan;

/** A size as a person writes it: 64M, 16M, 1G, 4096. */
final readonly class ByteSize
{
    private const UNITS = ['' => 1, 'K' => 1_024, 'M' => 1_048_576, 'G' => 1_073_741_824];

    public static function read(string $text, string $option, int $least): int
    {
        if (preg_match('/^(\d{1,12})([KMG]?)$/Di', $text, $found) !== 1) {
            throw UnusablePlan::because([
                new Problem(
                    '',
                    sprintf(
                        '--%s=%s is no size. Write a number of bytes, or one with K, M or G, such as --%s=256M.',
                        $option,
                        $text,
                        $option,
                    ),
                ),
            ]);
        }
        $bytes = (int) $found[1] * self::UNITS[strtoupper($found[2])];

        return $bytes >= $least
            ? $bytes
            : throw UnusablePlan::because([
                new Problem('', sprintf('--%s=%s is too small: at least %s bytes are needed.', $option, $text, number_format($least))),
            ]);
    }
}
