<?php

declare(strict_types=1);

namespace App\Actions\Access;

/**
 * Codes that change every half minute and are known to two who share a secret (TOTP, RFC 6238, on HOTP, RFC 4226): SHA-1, six digits, as
 * every authenticator has them.
 */
final readonly class TimeCode
{
    public const SECONDS = 30;

    private const DIGITS = 6;

    /** As long as the hash (RFC 4226, section 4). */
    private const SECRET_BYTES = 20;

    /** RFC 4648, section 6. */
    private const ALPHABET = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567';

    /** Steps before and after now that count too: clocks differ, and people type. */
    private const STEPS_BESIDE = 1;

    public static function newSecret(): string
    {
        return random_bytes(self::SECRET_BYTES);
    }

    /** @return string in Base32, as it is typed into an authenticator that has no camera */
    public static function written(#[\SensitiveParameter] string $secret): string
    {
        $bits = implode('', array_map(static fn(string $byte): string => sprintf('%08b', ord($byte)), str_split($secret)));

        return implode(
            '',
            array_map(
                static fn(string $five): string => substr(self::ALPHABET, (int) bindec(str_pad($five, 5, '0')), 1),
                str_split($bits, 5),
            ),
        );
    }

    /** @return string what a QR code for authenticators says (Key URI Format) */
    public static function address(#[\SensitiveParameter] string $secret, string $account): string
    {
        return 'otpauth://totp/'.rawurlencode("Nine Tally:{$account}").'?'.http_build_query([
            'secret' => self::written($secret),
            'issuer' => 'Nine Tally',
            'digits' => self::DIGITS,
            'period' => self::SECONDS,
        ], encoding_type: PHP_QUERY_RFC3986);
    }

    public static function at(#[\SensitiveParameter] string $secret, int $step, int $digits = self::DIGITS): string
    {
        $hash = hash_hmac('sha1', pack('J', $step), $secret, true);
        // Four bytes from a place that the last half byte names, without their sign (RFC 4226, section 5.3).
        $place = ord($hash[19]) & 0x0F;
        /** @var array{1: int} $four */
        $four = unpack('N', substr($hash, $place, 4));

        return str_pad((string) (($four[1] & 0x7FFFFFFF) % 10 ** $digits), $digits, '0', STR_PAD_LEFT);
    }

    /**
     * @param  int  $after  the step of the code that was taken last: each is taken once
     * @return int|null the step of the code; null when it is not right, or was taken before
     */
    public static function stepOf(#[\SensitiveParameter] string $secret, #[\SensitiveParameter] string $code, int $now, int $after): ?int
    {
        $step = intdiv($now, self::SECONDS);
        for ($beside = -self::STEPS_BESIDE; $beside <= self::STEPS_BESIDE; $beside++) {
            if ($step + $beside > $after && hash_equals(self::at($secret, $step + $beside), $code)) {
                return $step + $beside;
            }
        }

        return null;
    }
}
