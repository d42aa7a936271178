<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

/** What was found in a part, with the reason for each choice in words. */
final readonly class FoundPart
{
    /** @param array<string, string> $reasons by what was chosen: delimiter, lineEnds, encoding, sheet … */
    public function __construct(public PartFormat $format, public array $reasons) {}
}
