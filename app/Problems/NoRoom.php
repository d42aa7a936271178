<?php

declare(strict_types=1);

namespace App\Problems;

/** The disk of the installation is full, or would be. By its name it stands in the log; what a person is told is its message. */
final class NoRoom extends \RuntimeException
{
    public static function writing(): self
    {
        return new self(
            'The storage could not be written; the disk may be full. Nothing was changed. Have whoever runs Nine Tally free some space, '.
                'then try again.',
        );
    }

    public static function before(int $needed, int $free): self
    {
        return new self(
            sprintf(
                'This needs about %s MB on the disk, and %s MB are free, so it was not begun. Have whoever runs Nine Tally free some '.
                    'space, then try again.',
                number_format($needed / 1_048_576),
                number_format($free / 1_048_576),
            ),
        );
    }
}
