<?php

declare(strict_types=1);

namespace NineTally\Core\Seal;

use NineTally\Core\Plan\CanonicalJson;

/**
 * That a key hands over to another, said under the old one: whoever holds the fingerprint of the old key finds the new one by it, with
 * nobody's word but the key's own.
 */
final readonly class HandOver
{
    private const FORMAT = 1;

    /** @param string $statement canonical JSON (RFC 8785) */
    private function __construct(public string $statement, public string $signature) {}

    /** @param SealKey $old with its private half */
    public static function of(SealKey $old, SealKey $new, \DateTimeImmutable $at): self
    {
        $statement = CanonicalJson::of([
            'format' => self::FORMAT,
            'handsOver' => $old->fingerprint(),
            'to' => $new->fingerprint(),
            'at' => $at->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d\TH:i:s\Z'),
        ]);

        return new self($statement, $old->sign($statement));
    }

    public static function said(string $statement, string $signature): self
    {
        return new self($statement, $signature);
    }

    /** @return array{to: string, at: string}|null the key that this one hands over to, and when; null where it did not say so */
    public function by(SealKey $old): ?array
    {
        $said = json_decode($this->statement, true);
        if (
            ! is_array($said) ||
            ($said['handsOver'] ?? null) !== $old->fingerprint() ||
            ! is_string($said['to'] ?? null) ||
            ! is_string($said['at'] ?? null) ||
            ! $old->verifies($this->signature, $this->statement)
        ) {
            return null;
        }

        return ['to' => $said['to'], 'at' => $said['at']];
    }
}
