<?php

declare(strict_types=1);

namespace App\Logging;

/** What of an exception may stand in a log: where it happened and what it is called, never its message. */
final readonly class ReducedException
{
    /** @return array{class: string, code: string, at: string, causedBy: string|null} */
    public static function of(\Throwable $exception): array
    {
        $previous = $exception->getPrevious();

        return [
            'class' => $exception::class,
            'code' => (string) $exception->getCode(),
            'at' => basename($exception->getFile()).':'.$exception->getLine(),
            'causedBy' => $previous === null ? null : $previous::class.' '.$previous->getCode(),
        ];
    }
}
