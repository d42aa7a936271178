<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

/** Over which rows of a side a control total is taken. */
enum Basis: string
{
    case Delivered = 'delivered';
    case Prepared = 'prepared';
    case Matched = 'matched';
}
