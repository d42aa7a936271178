<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

use NineTally\Core\Intake\Delimited\DelimitedFormat;

/** What the detection found, with the reason for each choice in words. */
final readonly class FoundFormat
{
    /**
     * @param  array{delimiter: string, lineEnds: string, encoding: string, header: string}  $reasons
     * @param  bool  $isDelimited  false when no delimiter divides nearly all records alike
     */
    public function __construct(public DelimitedFormat $format, public array $reasons, public bool $isDelimited) {}
}
