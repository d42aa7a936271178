<?php

declare(strict_types=1);

namespace App\Signing;

/** How far the signing of a tally is. */
enum SignOffState: string
{
    case None = 'none';
    case Prepared = 'prepared';
    case Checked = 'checked';
    case Accepted = 'accepted';
    case Returned = 'returned';
    case Withdrawn = 'withdrawn';

    /** Somebody signs a newer tally of the dataset. */
    case Overtaken = 'overtaken';
}
