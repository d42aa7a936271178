<?php

declare(strict_types=1);

namespace NineTally\Core\Comparison;

enum CellClass: string
{
    case Identical = 'identical';
    case Forgiven = 'forgiven';
    case Changed = 'changed';
    case Blanked = 'blanked';
    case Filled = 'filled';
}
