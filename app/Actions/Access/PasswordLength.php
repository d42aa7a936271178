<?php

declare(strict_types=1);

namespace App\Actions\Access;

/** Characters of a password (NIST SP 800-63B-4, 3.1.1.2). */
final readonly class PasswordLength
{
    public const SHORTEST = 15;

    /** Of somebody who shows a second factor too. */
    public const SHORTEST_WITH_FACTOR = 8;

    public const LONGEST = 128;
}
