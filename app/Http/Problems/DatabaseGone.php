<?php

declare(strict_types=1);

namespace App\Http\Problems;

use Illuminate\Database\LostConnectionDetector;

/** Whether something failed because the database could not be reached, or went away, and not because of what it was asked. */
final readonly class DatabaseGone
{
    /** Connection exceptions, operator intervention, and insufficient resources (PostgreSQL, Error Codes: classes 08, 57P, 53). */
    private const STATES = '/^(?:08|57P|53)/';

    private const DISK_FULL = '53100';

    public static function is(\Throwable $exception): bool
    {
        $pdo = $exception instanceof \PDOException ? $exception : $exception->getPrevious();

        return $pdo instanceof \PDOException &&
            (preg_match(self::STATES, self::state($pdo)) === 1 ||
                (new LostConnectionDetector)->causedByLostConnection($pdo));
    }

    /** Whether the database could not write, for its disk is full. */
    public static function isFull(\Throwable $exception): bool
    {
        $pdo = $exception instanceof \PDOException ? $exception : $exception->getPrevious();

        return $pdo instanceof \PDOException && self::state($pdo) === self::DISK_FULL;
    }

    private static function state(\PDOException $exception): string
    {
        $state = $exception->errorInfo[0] ?? null;

        return is_string($state) ? $state : (string) $exception->getCode();
    }
}
