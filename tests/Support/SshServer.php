<?php

declare(strict_types=1);

namespace Tests\Support;

use Symfony\Component\Process\Process;

/** Debian's SSH server on loopback, which lets in whoever runs the tests with a key: it ends with the tests that use it. */
final readonly class SshServer
{
    /**
     * @param  string  $user  whom it lets in
     * @param  string  $privateKey  with which it does
     * @param  string  $fingerprint  of its own key
     */
    private function __construct(
        private Process $server,
        private string $folder,
        public int $port,
        public string $user,
        public string $privateKey,
        public string $fingerprint,
    ) {}

    public static function begin(string $folder): self
    {
        mkdir($folder, 0700, true);
        foreach (['host', 'person'] as $key) {
            (new Process(['ssh-keygen', '-q', '-t', 'ed25519', '-N', '', '-f', "{$folder}/{$key}"]))->mustRun();
        }
        $port = FreePort::find();
        file_put_contents(
            "{$folder}/settings",
            implode("\n", [
                "Port {$port}",
                'ListenAddress 127.0.0.1',
                "HostKey {$folder}/host",
                "AuthorizedKeysFile {$folder}/person.pub",
                'StrictModes no',
                'UsePAM no',
                'PermitRootLogin yes',
                "PidFile {$folder}/pid",
                'Subsystem sftp internal-sftp',
                '',
            ]),
        );
        // Where it is started by a machine, the machine makes this.
        posix_geteuid() === 0 && ! is_dir('/run/sshd') && mkdir('/run/sshd', 0755);
        $server = new Process(['/usr/sbin/sshd', '-D', '-e', '-f', "{$folder}/settings"]);
        $server->setTimeout(null);
        $server->start();
        FreePort::answers($port);
        if (! $server->isRunning()) {
            throw new \RuntimeException($server->getErrorOutput());
        }
        $fingerprint = (new Process(['ssh-keygen', '-l', '-f', "{$folder}/host.pub"]))->mustRun()->getOutput();

        return new self(
            $server,
            $folder,
            $port,
            posix_getpwuid(posix_geteuid())['name'] ?? '',
            (string) file_get_contents("{$folder}/person"),
            explode(' ', $fingerprint)[1],
        );
    }

    /** Ends every connection, in the middle of what it does. */
    public function breakOff(): void
    {
        (new Process([
            'sh', '-c', 'for child in $(pgrep -P "$1"); do pkill -9 -P "$child"; kill -9 "$child"; done; true', 'sh',
            (string) $this->server->getPid(),
        ]))->run();
    }

    public function end(): void
    {
        $this->server->stop(1);
        (new Process(['rm', '-rf', $this->folder]))->run();
    }
}
