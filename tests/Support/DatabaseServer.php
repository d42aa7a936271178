<?php

declare(strict_types=1);

namespace Tests\Support;

use Symfony\Component\Process\Process;

/** A MariaDB server on loopback with a database of its own, as a stand-in for an old system: it ends with the tests that use it. */
final class DatabaseServer
{
    private const SECONDS_TO_BEGIN = 30;

    /** @param string $authority the certificate that its own is held against (PEM) */
    private function __construct(
        private readonly Process $server,
        private readonly string $folder,
        public readonly int $port,
        public readonly string $authority,
    ) {}

    public static function begin(string $folder, string $statements): self
    {
        mkdir($folder, 0700, true);
        $authority = self::certify($folder);
        $account = posix_geteuid() === 0 ? ['--user=root'] : [];
        (new Process([
            'mariadb-install-db',
            '--no-defaults',
            "--datadir={$folder}",
            '--auth-root-authentication-method=normal',
            '--skip-test-db',
            ...$account,
        ]))
            ->setTimeout(60)
            ->mustRun();
        $port = FreePort::find();
        $server = new Process([
            'mariadbd',
            '--no-defaults',
            "--datadir={$folder}",
            "--socket={$folder}/socket",
            "--pid-file={$folder}/pid",
            "--port={$port}",
            "--ssl-ca={$folder}/authority.pem",
            "--ssl-cert={$folder}/own.pem",
            "--ssl-key={$folder}/own.key",
            '--bind-address=127.0.0.1',
            '--innodb-buffer-pool-size=16M',
            '--innodb-log-file-size=8M',
            ...$account,
        ]);
        $server->setTimeout(null);
        $server->start();
        for ($waited = 0; $waited < self::SECONDS_TO_BEGIN * 10; $waited++) {
            try {
                $database = new \PDO("mysql:unix_socket={$folder}/socket;charset=utf8mb4", 'root', '', [
                    \PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION,
                ]);
                $database->exec($statements);

                return new self($server, $folder, $port, $authority);
            } catch (\PDOException $problem) {
                if (! $server->isRunning() || ! str_contains($problem->getMessage(), '[2002]')) {
                    throw new \RuntimeException($problem->getMessage().$server->getErrorOutput());
                }
                usleep(100_000);
            }
        }
        throw new \RuntimeException('The database server does not begin: '.$server->getErrorOutput());
    }

    /** A certificate for 127.0.0.1, and the authority that stands for it. */
    public static function certify(string $folder): string
    {
        $steps = [
            [
                'req', '-x509', '-newkey', 'rsa:2048', '-nodes', '-days', '30', '-subj', '/CN=Wherrymoor', '-keyout', 'authority.key',
                '-out', 'authority.pem',
            ],
            ['req', '-newkey', 'rsa:2048', '-nodes', '-subj', '/CN=127.0.0.1', '-keyout', 'own.key', '-out', 'own.csr'],
            ['x509', '-req', '-in', 'own.csr', '-CA', 'authority.pem', '-CAkey', 'authority.key', '-CAcreateserial', '-days', '30',
                '-extfile', 'names', '-out', 'own.pem'],
        ];
        file_put_contents("{$folder}/names", "subjectAltName=IP:127.0.0.1\n");
        foreach ($steps as $step) {
            (new Process(['openssl', ...$step], $folder))->mustRun();
        }

        return (string) file_get_contents("{$folder}/authority.pem");
    }

    public function end(): void
    {
        $this->server->stop(10);
        (new Process(['rm', '-rf', $this->folder]))->run();
    }
}
