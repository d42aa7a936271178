<?php

declare(strict_types=1);

namespace Tests\Support;

use Symfony\Component\Process\Process;

/** The web server of feed-server.php on loopback: it ends with the tests that use it. */
final readonly class FeedServer
{
    private function __construct(private Process $server, public int $port) {}

    /** @param string $folder in which it keeps what it has to remember */
    public static function begin(string $folder): self
    {
        $socket = stream_socket_server('tcp://127.0.0.1:0');
        if ($socket === false) {
            throw new \RuntimeException('There is no port left.');
        }
        $port = (int) substr((string) strrchr((string) stream_socket_get_name($socket, false), ':'), 1);
        fclose($socket);
        $server = new Process(
            [PHP_BINARY, '-n', '-S', "127.0.0.1:{$port}", __DIR__.'/feed-server.php'],
            env: ['FEED_FOLDER' => $folder, 'PHP_CLI_SERVER_WORKERS' => '2'],
        );
        $server->start();
        for ($waited = 0; $waited < 100 && @fsockopen('127.0.0.1', $port) === false; $waited++) {
            usleep(50_000);
        }

        return new self($server, $port);
    }

    public function end(): void
    {
        $this->server->stop(1);
    }
}
