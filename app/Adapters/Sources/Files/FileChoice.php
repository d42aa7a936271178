<?php

declare(strict_types=1);

namespace App\Adapters\Sources\Files;

/** How many of the files that are called so are taken. */
enum FileChoice: string
{
    case Newest = 'newest';
    /** Each a part of one delivery. */
    case All = 'all';
    /** All that no delivery has had yet, or that were written again since. */
    case Since = 'since';
    /** The newest, and those before it with no long pause between: parts that were put there one after the other. */
    case Together = 'together';
    /** Those that the newest file of this name lists, a name a line, with a digest before it or without. */
    case Manifest = 'manifest';
}
