<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

/** How the cells of a column pair are read. A kind forgives nothing by itself. */
enum Kind: string
{
    case Text = 'text';
}
