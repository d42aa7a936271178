<?php

declare(strict_types=1);

namespace App\Problems;

/** The password is right, and somebody who has a second factor has not shown it yet. */
final class SecondFactorNeeded extends \RuntimeException
{
    public function __construct()
    {
        parent::__construct('Type the six digits that your authenticator shows now, or one of your recovery codes.');
    }
}
