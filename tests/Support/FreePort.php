<?php

declare(strict_types=1);

namespace Tests\Support;

/** A port of loopback on which nobody listens. */
final readonly class FreePort
{
    public static function find(): int
    {
        $socket = stream_socket_server('tcp://127.0.0.1:0');
        if ($socket === false) {
            throw new \RuntimeException('There is no port left.');
        }
        $port = (int) substr((string) strrchr((string) stream_socket_get_name($socket, false), ':'), 1);
        fclose($socket);

        return $port;
    }

    /** Waits until somebody listens there, for five seconds at most. */
    public static function answers(int $port): void
    {
        for ($waited = 0; $waited < 100 && @fsockopen('127.0.0.1', $port) === false; $waited++) {
            usleep(50_000);
        }
    }
}
