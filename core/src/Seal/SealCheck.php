<?php

declare(strict_types=1);

namespace NineTally\Core\Seal;

/** Holds the seal of a pack against the pack, a key that somebody confirmed, and the time that a service vouches for. */
final class SealCheck
{
    private const MOST_KEYS = 10_000;

    private const PURGES = 'data/purges.csv';

    /** @var list<CheckLine> */
    private array $lines = [];

    private function __construct(private readonly PackedFiles $files, private readonly bool $filesFit) {}

    /**
     * @param  bool  $filesFit  whether everything that the manifests say holds
     * @param  string|null  $fingerprint  of the key that whoever checks knows to be right: 64 lower hexadecimal digits
     */
    public static function of(PackedFiles $files, bool $filesFit, ?string $fingerprint): CheckedPack
    {
        $check = new self($files, $filesFit);
        $check->purged();
        $sealedWith = $check->seal($fingerprint);
        $check->timeStamp();

        return new CheckedPack($check->lines, $sealedWith);
    }

    /** What was gone when the pack was made: no finding of it is in there, and nobody shall take that for none. */
    private function purged(): void
    {
        $table = fopen('php://temp', 'w+b') ?: throw new \LogicException('Memory can be written to.');
        fwrite($table, (string) $this->files->content(self::PURGES));
        rewind($table);
        fgetcsv($table, escape: '');
        while (($purge = fgetcsv($table, escape: '')) !== false) {
            $purge = array_pad($purge, 6, '');
            $this->lines[] = CheckLine::unknown(
                "The content of {$purge[0]} delivery {$purge[1]} was purged by {$purge[3]} at {$purge[4]}, before this pack was made: ".
                    'it has figures, rulings and signatures, and no findings.',
            );
        }
        fclose($table);
    }

    /** @return string|null the fingerprint of the key in the pack */
    private function seal(?string $fingerprint): ?string
    {
        [$statement, $signature, $pem] = array_map($this->files->content(...), [BagWriter::SEAL, BagWriter::SIGNATURE, BagWriter::KEY]);
        foreach ([BagWriter::SEAL => $statement, BagWriter::SIGNATURE => $signature, BagWriter::KEY => $pem] as $name => $content) {
            if ($content === null) {
                $this->lines[] = CheckLine::differs($name, 'This part of the seal is missing, or cannot be read.');
            }
        }
        try {
            $key = SealKey::fromPublicPem((string) $pem);
        } catch (UnusableKey $problem) {
            $this->lines[] = CheckLine::differs(BagWriter::KEY, $problem->getMessage());

            return null;
        }
        $said = json_decode((string) $statement, true);
        $said = is_array($said) ? $said : [];
        if (! $key->verifies((string) $signature, (string) $statement)) {
            $this->lines[] = CheckLine::differs(
                BagWriter::SEAL,
                'The signature does not fit: the seal, its signature or the key was changed.',
            );
        }
        if (($said['tagManifest'] ?? null) !== $this->files->digest(BagWriter::TAG_MANIFEST)) {
            $this->lines[] = CheckLine::differs(BagWriter::TAG_MANIFEST, 'This is not the tag manifest that was sealed: it was changed.');
        }
        if (($said['key'] ?? null) !== $key->fingerprint()) {
            $this->lines[] = CheckLine::differs(BagWriter::KEY, 'The seal names another key than the one in the pack.');
        }
        $this->confirm($key, $fingerprint);
        if ($this->fits() && is_string($said['sealedAt'] ?? null) && is_string($said['about'] ?? null)) {
            $this->lines[] = CheckLine::fits(
                "The seal fits: {$said['about']}, sealed at {$said['sealedAt']} under the key {$key->fingerprint()}.",
            );
        }

        return $key->fingerprint();
    }

    private function confirm(SealKey $key, ?string $fingerprint): void
    {
        if ($fingerprint === null) {
            $this->lines[] = CheckLine::unknown(
                "Nobody has confirmed the key {$key->fingerprint()}: whoever changed the pack could have sealed it anew. ".
                    'Compare it with a printed report, or ask who keeps the installation, and name it.',
            );
        } elseif (! hash_equals($key->fingerprint(), $fingerprint)) {
            $at = $this->handedOver($fingerprint, $key->fingerprint());
            $this->lines[] = $at !== null ? CheckLine::fits(
                "The key that you named handed over to the key {$key->fingerprint()} at {$at}, and said so itself.",
            ) : CheckLine::differs(
                BagWriter::KEY,
                "The pack is sealed with another key than the one that you named: {$key->fingerprint()}.",
            );
        } else {
            $this->lines[] = CheckLine::fits('The key is the one that you named.');
        }
    }

    /** @return string|null when the last of the keys between them handed over; null where one did not */
    private function handedOver(string $from, string $to): ?string
    {
        $at = null;
        for ($number = 1; $from !== $to; $number++) {
            $place = "data/keys/{$number}-";
            [$pem, $statement, $signature] = array_map(
                $this->files->content(...),
                ["{$place}key.pem", "{$place}hand-over.json", "{$place}hand-over.sig"],
            );
            if ($pem === null || $number > self::MOST_KEYS) {
                return null;
            }
            try {
                $key = SealKey::fromPublicPem($pem);
            } catch (UnusableKey) {
                return null;
            }
            if ($key->fingerprint() === $from) {
                $next = HandOver::said((string) $statement, (string) $signature)->by($key);
                if ($next === null) {
                    return null;
                }
                [$from, $at] = [$next['to'], $next['at']];
            }
        }

        return $at;
    }

    private function timeStamp(): void
    {
        $token = $this->files->content(BagWriter::TIME_STAMP);
        $authority = $this->files->content(BagWriter::AUTHORITY);
        if (! $this->files->has(BagWriter::TIME_STAMP) && $authority === null) {
            return;
        }
        try {
            $at = (new TimeStamp((string) $token))->of((string) $this->files->content(BagWriter::SEAL), (string) $authority);
            $this->lines[] = CheckLine::fits(sprintf(
                'The seal was there at %s, says the service whose certificates stand in %s (SHA-256 %s): look whether you trust it.',
                $at->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d\TH:i:s\Z'),
                BagWriter::AUTHORITY,
                hash('sha256', (string) $authority),
            ));
        } catch (UnusableTimeStamp $problem) {
            $this->lines[] = $problem->isUnknown
                ? CheckLine::unknown($problem->getMessage())
                : CheckLine::differs(BagWriter::TIME_STAMP, $problem->getMessage());
        }
    }

    private function fits(): bool
    {
        return $this->filesFit && (new CheckedPack($this->lines))->fits();
    }
}
