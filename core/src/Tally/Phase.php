<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

enum Phase: string
{
    case Reading = 'reading';
    case Matching = 'matching';
    case Merging = 'merging';
}
