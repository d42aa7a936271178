<?php

declare(strict_types=1);

namespace App\Adapters\Sources\Files;

use App\Adapters\Sources\SourceProblem;
use League\Flysystem\PhpseclibV3\ConnectionProvider;
use phpseclib3\Crypt\Common\PrivateKey;
use phpseclib3\Crypt\PublicKeyLoader;
use phpseclib3\Exception\NoKeyLoadedException;
use phpseclib3\Net\SFTP;

/**
 * The way into another machine by SSH (RFC 4251). Its key is known beforehand, so nobody stands between unseen: one that is not known is
 * told, and not trusted.
 */
final class SftpDoor implements ConnectionProvider
{
    private const SECONDS_TO_ANSWER = 20;

    private ?SFTP $entered = null;

    /**
     * @param  string  $hostKey  the fingerprint of the machine's key, as SSH writes it: SHA256: and base 64; '' for not known yet
     * @param  string  $secret  a password, or a private key
     */
    public function __construct(
        private readonly string $host,
        private readonly int $port,
        private readonly string $user,
        private readonly string $hostKey,
        #[\SensitiveParameter]
        private readonly string $secret,
    ) {}

    public function provideConnection(): SFTP
    {
        if ($this->entered?->isConnected() === true) {
            return $this->entered;
        }
        $secret = $this->secret();
        $connection = new SFTP($this->host, $this->port, self::SECONDS_TO_ANSWER);
        $connection->disableStatCache();
        $this->mustBeKnown($connection);
        try {
            $isIn = $connection->login($this->user, $secret);
        } catch (\RuntimeException $thrown) {
            throw new SourceProblem("{$this->host} broke off while it was entered. Try again.", previous: $thrown);
        }
        if (! $isIn) {
            $with = is_string($secret) ? 'password' : 'private key';
            throw new SourceProblem("{$this->host} refuses this user with this {$with}. Check both.");
        }

        return $this->entered = $connection;
    }

    private function secret(): string|PrivateKey
    {
        if (! str_contains($this->secret, '-----BEGIN')) {
            return $this->secret;
        }
        try {
            $key = PublicKeyLoader::load($this->secret);
        } catch (NoKeyLoadedException) {
            $key = null;
        }

        return $key instanceof PrivateKey
            ? $key
            : throw new SourceProblem('The private key cannot be read: it is damaged, is a public one, or has a password of its own.');
    }

    private function mustBeKnown(SFTP $connection): void
    {
        $place = "{$this->host}, port {$this->port}";
        try {
            $key = $connection->getServerPublicHostKey();
        } catch (\RuntimeException $thrown) {
            throw new SourceProblem(
                match (true) {
                    preg_match('/getaddrinfo|name or service|name resolution/i', $thrown->getMessage()) === 1
                        => "There is no computer called {$this->host}, or its name cannot be found from here. Check the name.",
                    preg_match('/refused/i', $thrown->getMessage()) === 1
                        => "Nobody answers at {$place}. Check the port, and whether its server for SSH runs.",
                    default => "{$place} does not answer as SSH does. Check name and port, and whether a firewall stands between.",
                },
                previous: $thrown,
            );
        }
        $shown = self::fingerprint(is_string($key) ? $key : '');
        if ($this->hostKey === '') {
            throw new SourceProblem(
                "{$place} shows the key {$shown}. Ask whoever runs it whether that is its own, and enter it as the key of the computer.",
            );
        }
        if (! hash_equals($this->hostKey, $shown)) {
            throw new SourceProblem(
                "{$place} shows another key than the one that is known: {$shown}. Somebody may stand between. Ask whoever runs it first.",
            );
        }
    }

    /** @param string $key its kind, a blank, and the key in base 64 (RFC 4253, 6.6) */
    private static function fingerprint(string $key): string
    {
        return 'SHA256:'.rtrim(base64_encode(hash('sha256', (string) base64_decode(explode(' ', $key)[1] ?? '', true), true)), '=');
    }
}
