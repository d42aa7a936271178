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
        $port = FreePort::find();
        $server = new Process(
            [PHP_BINARY, '-n', '-S', "127.0.0.1:{$port}", __DIR__.'/feed-server.php'],
            env: ['FEED_FOLDER' => $folder, 'PHP_CLI_SERVER_WORKERS' => '2'],
        );
        $server->start();
        FreePort::answers($port);

        return new self($server, $port);
    }

    public function end(): void
    {
        $this->server->stop(1);
    }
}
