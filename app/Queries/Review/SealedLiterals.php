<?php

declare(strict_types=1);

namespace App\Queries\Review;

/**
 * A value that stands in a plan, for somebody who works on the plan and may not see the value: it goes out sealed and comes back as it was.
 * The same value has the same seal in all plans of a dataset, so that a draft which nobody changed stays as it is: the nonce of the seal is
 * made of the value (as in RFC 5297), and lengths are filled up to sixteen bytes.
 */
final readonly class SealedLiterals
{
    private const CIPHER = 'aes-256-gcm';

    private const NONCE_BYTES = 12;

    private const TAG_BYTES = 12;

    private const BLOCK = 16;

    private const SEAL = '/\(masked ([A-Za-z0-9_-]{30,})\)/';

    private string $keyOfNonce;

    private string $key;

    public function __construct(#[\SensitiveParameter] string $secret, int $datasetId)
    {
        $this->keyOfNonce = hash_hmac('sha256', "nonces of dataset {$datasetId}", $secret, true);
        $this->key = hash_hmac('sha256', "seals of dataset {$datasetId}", $secret, true);
    }

    public function sealed(string $value): string
    {
        $filled = str_pad($value, intdiv(strlen($value), self::BLOCK) * self::BLOCK + self::BLOCK, "\0");
        $nonce = substr(hash_hmac('sha256', $value, $this->keyOfNonce, true), 0, self::NONCE_BYTES);
        $tag = '';
        $sealed = openssl_encrypt($filled, self::CIPHER, $this->key, OPENSSL_RAW_DATA, $nonce, $tag, '', self::TAG_BYTES);

        return '(masked '.rtrim(strtr(base64_encode($nonce.$tag.$sealed), '+/', '-_'), '=').')';
    }

    /**
     * @param  array<array-key, mixed>  $document
     * @return array<array-key, mixed> with the values in place of the seals that were made here; others stay
     */
    public function opened(array $document): array
    {
        array_walk_recursive($document, function (mixed &$said): void {
            if (is_string($said) && str_contains($said, '(masked ')) {
                $said = preg_replace_callback(self::SEAL, fn(array $seal): string => $this->open($seal[1]) ?? $seal[0], $said);
            }
        });

        return $document;
    }

    /**
     * @param  array<array-key, mixed>  $document
     * @return array<string, int> how often each seal stands in it
     */
    public static function in(array $document): array
    {
        $seals = [];
        array_walk_recursive($document, static function (mixed $said) use (&$seals): void {
            if (is_string($said) && preg_match_all(self::SEAL, $said, $found) > 0) {
                array_push($seals, ...$found[0]);
            }
        });

        return array_count_values($seals);
    }

    private function open(string $seal): ?string
    {
        $bytes = (string) base64_decode(strtr($seal, '-_', '+/'), true);
        $value = openssl_decrypt(
            substr($bytes, self::NONCE_BYTES + self::TAG_BYTES),
            self::CIPHER,
            $this->key,
            OPENSSL_RAW_DATA,
            substr($bytes, 0, self::NONCE_BYTES),
            substr($bytes, self::NONCE_BYTES, self::TAG_BYTES),
        );

        return $value === false ? null : rtrim($value, "\0");
    }
}
