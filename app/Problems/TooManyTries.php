<?php

declare(strict_types=1);

namespace App\Problems;

use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;

/** Somebody tried too often, and is told when the next try is looked at. */
final class TooManyTries extends TooManyRequestsHttpException
{
    public function __construct(int $seconds)
    {
        parent::__construct(
            $seconds,
            sprintf('Too many tries. Wait %d %s, then try again.', $seconds, $seconds === 1 ? 'second' : 'seconds'),
        );
    }
}
