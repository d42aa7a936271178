<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Models\Tally;
use NineTally\Core\Plan\Bridge;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Wording\WarningKind;

/** Which bridges of its plan a tally found rows for: all but those that it warns of as idle. */
final readonly class JoinedBridges
{
    /** @return array<string, bool> whether it joined rows, by the identity of the bridge */
    public static function of(Tally $tally): array
    {
        $idle = [];
        foreach ($tally->summary['warnings'] ?? [] as $warning) {
            if (is_array($warning) && $warning['kind'] === WarningKind::IdleBridge->value) {
                $idle["{$warning['facts']['source']}\n{$warning['facts']['target']}"] = true;
            }
        }
        $joined = [];
        foreach ($tally->planVersion->plan()->bridges->confirmed as $bridge) {
            $joined[$bridge->identity()] = ! isset($idle[self::inWarnings($bridge)]);
        }

        return $joined;
    }

    /** @return string 32 hexadecimal digits, by which a line of corrections names a bridge */
    public static function digest(string $identity): string
    {
        return hash('xxh128', "bridge\n{$identity}");
    }

    private static function inWarnings(Bridge $bridge): string
    {
        return KeyTuple::of($bridge->source)->asCsv()."\n".KeyTuple::of($bridge->target)->asCsv();
    }
}
