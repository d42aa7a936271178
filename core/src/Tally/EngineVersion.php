<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Cause\CauseCatalogue;

/** What a result depends on beside deliveries and plan. */
final readonly class EngineVersion
{
    public const ENGINE = '0.1.0';

    /** @return array{engine: string, causes: int, icu: string, timeZones: string} */
    public static function all(): array
    {
        return [
            'engine' => self::ENGINE,
            'causes' => CauseCatalogue::VERSION,
            'icu' => INTL_ICU_VERSION,
            'timeZones' => (string) \IntlTimeZone::getTZDataVersion(),
        ];
    }
}
