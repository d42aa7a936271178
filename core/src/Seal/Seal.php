<?php

declare(strict_types=1);

namespace NineTally\Core\Seal;

use NineTally\Core\Plan\CanonicalJson;

/**
 * What is said of a pack under a key: the digest of its tag manifest, and with it of every file; the seal before it, so that none can be
 * taken out or put in between; and where the trail stood.
 */
final readonly class Seal
{
    private const FORMAT = 1;

    /** @param string $statement canonical JSON (RFC 8785) */
    private function __construct(public string $statement, public string $signature) {}

    /**
     * @param  string  $tagManifest  SHA-256
     * @param  string|null  $previous  digest of the seal before; null for the first
     * @param  string|null  $trailHead  digest of the newest entry of the trail; null where no trail is kept
     * @param  string  $about  what the pack is of
     */
    public static function over(
        string $tagManifest,
        ?string $previous,
        ?string $trailHead,
        string $about,
        \DateTimeImmutable $at,
        SealKey $key,
    ): self {
        $statement = CanonicalJson::of([
            'format' => self::FORMAT,
            'about' => $about,
            'tagManifest' => $tagManifest,
            'previousSeal' => $previous,
            'trailHead' => $trailHead,
            'sealedAt' => $at->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d\TH:i:s\Z'),
            'key' => $key->fingerprint(),
        ]);

        return new self($statement, $key->sign($statement));
    }

    /** What the next seal names. */
    public function digest(): string
    {
        return hash('sha256', $this->statement);
    }
}
