<?php

declare(strict_types=1);

namespace Tests\Support;

use Symfony\Component\Process\Process;

/** A store on loopback that is asked as S3 is, with a bucket of its own: it ends with the tests that use it. */
final readonly class ObjectServer
{
    /** Whom it knows. */
    public const USER = 'S3RVER';

    private function __construct(private Process $server, private string $folder, public int $port) {}

    public static function begin(string $folder, string $bucket): self
    {
        mkdir($folder, 0700, true);
        $port = FreePort::find();
        $server = new Process([
            base_path('node_modules/.bin/s3rver'), '-d', $folder, '-a', '127.0.0.1', '-p', (string) $port, '--no-vhost-buckets',
            '--configure-bucket', $bucket,
        ]);
        $server->setTimeout(null);
        $server->start();
        FreePort::answers($port);

        return new self($server, $folder, $port);
    }

    public function end(): void
    {
        $this->server->stop(1);
        (new Process(['rm', '-rf', $this->folder]))->run();
    }
}
