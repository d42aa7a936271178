<?php

declare(strict_types=1);

namespace NineTally\Core\Seal;

/** A key that seals packs: Ed25519 (RFC 8032), written as PEM so that openssl reads it (RFC 8410). */
final readonly class SealKey
{
    /** What stands before the 32 bytes of a public key, and of a seed (RFC 8410, sections 4 and 7). */
    private const PUBLIC = "\x30\x2a\x30\x05\x06\x03\x2b\x65\x70\x03\x21\x00";

    private const PRIVATE = "\x30\x2e\x02\x01\x00\x30\x05\x06\x03\x2b\x65\x70\x04\x22\x04\x20";

    /**
     * @param  non-empty-string  $public  32 bytes
     * @param  non-empty-string|null  $seed  32 bytes; null where only seals are checked
     */
    private function __construct(private string $public, #[\SensitiveParameter] private ?string $seed) {}

    /** @param string $seed 32 random bytes */
    public static function ofSeed(#[\SensitiveParameter] string $seed): self
    {
        if ($seed === '' || strlen($seed) !== SODIUM_CRYPTO_SIGN_SEEDBYTES) {
            throw UnusableKey::because('a seed has 32 bytes');
        }
        $public = sodium_crypto_sign_publickey(sodium_crypto_sign_seed_keypair($seed));

        return new self($public, $seed);
    }

    /** @throws UnusableKey when it is no private key of this kind */
    public static function fromPrivatePem(#[\SensitiveParameter] string $pem): self
    {
        return self::ofSeed(self::bytes($pem, 'PRIVATE KEY', self::PRIVATE));
    }

    /** @throws UnusableKey when it is no public key of this kind */
    public static function fromPublicPem(string $pem): self
    {
        return new self(self::bytes($pem, 'PUBLIC KEY', self::PUBLIC), null);
    }

    public function publicPem(): string
    {
        return self::pem('PUBLIC KEY', self::PUBLIC.$this->public);
    }

    public function privatePem(): string
    {
        return self::pem('PRIVATE KEY', self::PRIVATE.($this->seed ?? throw UnusableKey::because('it is the public half alone')));
    }

    /** SHA-256 of the public key as DER: what two people compare. */
    public function fingerprint(): string
    {
        return hash('sha256', self::PUBLIC.$this->public);
    }

    /** @return string 64 bytes */
    public function sign(string $message): string
    {
        $seed = $this->seed ?? throw UnusableKey::because('it is the public half alone');

        return sodium_crypto_sign_detached($message, sodium_crypto_sign_secretkey(sodium_crypto_sign_seed_keypair($seed)));
    }

    public function verifies(string $signature, string $message): bool
    {
        return strlen($signature) === SODIUM_CRYPTO_SIGN_BYTES && sodium_crypto_sign_verify_detached($signature, $message, $this->public);
    }

    private static function pem(string $label, string $der): string
    {
        return "-----BEGIN {$label}-----\n".chunk_split(base64_encode($der), 64, "\n")."-----END {$label}-----\n";
    }

    /**
     * Only as it is written here, byte for byte: what stands around a key would be seen by nobody.
     *
     * @return non-empty-string
     */
    private static function bytes(#[\SensitiveParameter] string $pem, string $label, string $before): string
    {
        $isPem = preg_match("/^-----BEGIN {$label}-----\\n([A-Za-z0-9+\\/=\\n]+)-----END {$label}-----\\n\$/D", $pem, $found) === 1;
        $der = $isPem ? (string) base64_decode(str_replace("\n", '', $found[1]), true) : '';
        $bytes = str_starts_with($der, $before) ? substr($der, strlen($before)) : '';
        if (strlen($bytes) !== 32 || self::pem($label, $der) !== $pem) {
            throw UnusableKey::because('it is not an Ed25519 key in PEM');
        }

        return $bytes;
    }
}
