<?php

declare(strict_types=1);

namespace NineTally\Core\Seal;

/**
 * Holds a pack against its manifests, its seal and a key, file by file. What is no pack, or would do harm when it is unpacked, is refused
 * before a byte of it is believed. Files are read in pieces and never unpacked.
 */
final class PackCheck
{
    private const MOST_FILES = 200_000;

    /** A file that would unpack to more than so many times its size in the zip is a trap: text packs 20 times smaller, seldom 100 times. */
    private const MOST_TIMES = 500;

    /** Of what is read whole: manifests, seal, key. */
    private const MOST_TAG_BYTES = 64 * 1024 * 1024;

    private const PIECE = 1_048_576;

    private const PURGES = 'data/purges.csv';

    private string $folder = '';

    /** @var array<string, int> size as the zip says, by the path below the folder */
    private array $sizes = [];

    /** @var list<CheckLine> */
    private array $lines = [];

    private function __construct(private readonly \ZipArchive $zip) {}

    /** @param string|null $fingerprint of the key that whoever checks knows to be right; null where nobody has confirmed one */
    public static function of(string $path, ?string $fingerprint = null): CheckedPack
    {
        $zip = new \ZipArchive;
        $opened = @$zip->open($path, \ZipArchive::RDONLY);
        if ($opened !== true) {
            return new CheckedPack([
                CheckLine::differs(basename($path), 'This is no zip, or it is damaged, so nothing of it can be checked.'),
            ]);
        }
        try {
            return (new self($zip))->check(
                $fingerprint === null ? null : strtolower((string) preg_replace('/[^0-9A-Fa-f]/', '', $fingerprint)),
            );
        } finally {
            $zip->close();
        }
    }

    private function check(?string $fingerprint): CheckedPack
    {
        if (! $this->isHarmless()) {
            return new CheckedPack($this->lines);
        }
        $this->declaration();
        $payload = $this->manifest(BagWriter::MANIFEST);
        $tags = $this->manifest(BagWriter::TAG_MANIFEST);
        $this->complete($payload, $tags);
        $whole = $this->digests([...$payload, ...$tags]);
        if ($this->fits()) {
            $this->lines[] = CheckLine::fits(sprintf('All %s files are byte for byte what the manifests say.', number_format($whole)));
        }

        $this->purged();
        $sealedWith = $this->seal($fingerprint);

        return new CheckedPack($this->lines, $sealedWith);
    }

    private function isHarmless(): bool
    {
        $seen = [];
        if ($this->zip->numFiles === 0 || $this->zip->numFiles > self::MOST_FILES) {
            return $this->refuse(
                '',
                sprintf(
                    'The zip has %s entries, and a pack has between 1 and %s.',
                    number_format($this->zip->numFiles),
                    number_format(self::MOST_FILES),
                ),
            );
        }
        for ($index = 0; $index < $this->zip->numFiles; $index++) {
            $stat = $this->zip->statIndex($index);
            $name = $stat === false ? '' : (string) $stat['name'];
            if ($stat === false || preg_match(BagWriter::NAME, $name) !== 1 || preg_match('~(?:^|/)\.\.?(?:/|$)~', $name) === 1) {
                return $this->refuse(
                    self::shown($name),
                    'This name leads outside of the pack, or has characters that no pack uses. The pack is refused.',
                );
            }
            if (isset($seen[strtolower($name)])) {
                return $this->refuse($name, 'This name stands twice, and nobody can tell which one is meant. The pack is refused.');
            }
            $seen[strtolower($name)] = true;
            if ($stat['size'] > self::PIECE && $stat['size'] > self::MOST_TIMES * max(1, $stat['comp_size'])) {
                return $this->refuse($name, 'This file would unpack to far more than it is: a trap. The pack is refused.');
            }
            [$folder, $file] = [...explode('/', $name, 2), ''];
            if ($file === '' || ($this->folder !== '' && $folder !== $this->folder)) {
                return $this->refuse($name, 'A pack has one folder at its top, and everything in it. The pack is refused.');
            }
            $this->folder = $folder;
            $this->sizes[$file] = $stat['size'];
        }

        return true;
    }

    private function declaration(): void
    {
        if ($this->content('bagit.txt') !== BagWriter::DECLARATION) {
            $this->lines[] = CheckLine::differs(
                'bagit.txt',
                'It does not say that this is a bag of version 1.0 in UTF-8 (RFC 8493, section 2.1.1).',
            );
        }
    }

    /** @return array<string, string> digest by path; none where it cannot be read */
    private function manifest(string $name): array
    {
        $content = $this->content($name);
        if ($content === null) {
            $this->lines[] = CheckLine::differs($name, 'This manifest is missing, or cannot be read.');

            return [];
        }
        $digests = [];
        foreach (explode("\n", $content) as $number => $line) {
            if ($line === '' && $number === substr_count($content, "\n")) {
                break;
            }
            if (preg_match('~^([0-9a-f]{64})[ \t]+\*?(\S+)$~D', $line, $found) !== 1 || isset($digests[$found[2]])) {
                $this->lines[] = CheckLine::differs(
                    $name,
                    sprintf('Line %d is no digest and name, or its name stands twice.', $number + 1),
                );

                continue;
            }
            $digests[$found[2]] = $found[1];
        }

        return $digests;
    }

    /**
     * @param  array<string, string>  $payload
     * @param  array<string, string>  $tags
     */
    private function complete(array $payload, array $tags): void
    {
        $unlisted = [BagWriter::TAG_MANIFEST, BagWriter::SEAL, BagWriter::SIGNATURE, BagWriter::KEY];
        foreach (['bagit.txt', 'bag-info.txt', BagWriter::MANIFEST] as $name) {
            if (! isset($tags[$name])) {
                $this->lines[] = CheckLine::differs($name, 'The tag manifest does not list it, so nothing vouches for it.');
            }
        }
        foreach (array_keys($this->sizes) as $name) {
            $isListed = str_starts_with($name, 'data/') ? isset($payload[$name]) : isset($tags[$name]) || in_array($name, $unlisted, true);
            // A time stamp is taken of the seal, and stands beside it.
            if (! $isListed && ! str_starts_with($name, 'seal/timestamp.')) {
                $this->lines[] = CheckLine::differs($name, 'No manifest lists this file: it was put in.');
            }
        }
    }

    /**
     * @param  array<string, string>  $digests
     * @return int files that are whole
     */
    private function digests(array $digests): int
    {
        $whole = 0;
        foreach ($digests as $name => $digest) {
            if (! isset($this->sizes[$name])) {
                $this->lines[] = CheckLine::differs($name, 'The manifest lists this file, and it is missing.');
            } elseif ($this->digest($name) !== $digest) {
                $this->lines[] = CheckLine::differs($name, 'This file was changed: its SHA-256 is not the one in the manifest.');
            } else {
                $whole++;
            }
        }

        return $whole;
    }

    /** What was gone when the pack was made: no finding of it is in there, and nobody shall take that for none. */
    private function purged(): void
    {
        $table = fopen('php://temp', 'w+b') ?: throw new \LogicException('Memory can be written to.');
        fwrite($table, (string) $this->content(self::PURGES));
        rewind($table);
        fgetcsv($table, escape: '');
        while (($purge = fgetcsv($table, escape: '')) !== false) {
            $purge = array_pad($purge, 6, '');
            $this->lines[] = CheckLine::unknown(
                "The content of {$purge[0]} delivery {$purge[1]} was purged by {$purge[3]} at {$purge[4]}, before this pack was made: it has ".
                    'figures, rulings and signatures, and no findings.',
            );
        }
        fclose($table);
    }

    /** @return string|null the fingerprint of the key in the pack */
    private function seal(?string $fingerprint): ?string
    {
        [$statement, $signature, $pem] = array_map($this->content(...), [BagWriter::SEAL, BagWriter::SIGNATURE, BagWriter::KEY]);
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
        if (($said['tagManifest'] ?? null) !== $this->digest(BagWriter::TAG_MANIFEST)) {
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
            $this->lines[] = CheckLine::differs(
                BagWriter::KEY,
                "The pack is sealed with another key than the one that you named: {$key->fingerprint()}.",
            );
        } else {
            $this->lines[] = CheckLine::fits('The key is the one that you named.');
        }
    }

    private function fits(): bool
    {
        return (new CheckedPack($this->lines))->fits();
    }

    private function refuse(string $about, string $words): bool
    {
        $this->lines[] = CheckLine::differs($about, $words);

        return false;
    }

    private function content(string $name): ?string
    {
        if (! isset($this->sizes[$name]) || $this->sizes[$name] > self::MOST_TAG_BYTES) {
            return null;
        }
        $content = $this->zip->getFromName("{$this->folder}/{$name}");

        return is_string($content) && strlen($content) === $this->sizes[$name] ? $content : null;
    }

    /** @return string|null null where it cannot be read to its end */
    private function digest(string $name): ?string
    {
        $stream = isset($this->sizes[$name]) ? $this->zip->getStream("{$this->folder}/{$name}") : false;
        if ($stream === false) {
            return null;
        }
        $hash = hash_init('sha256');
        $read = 0;
        while (! feof($stream) && $read <= $this->sizes[$name]) {
            $piece = @fread($stream, self::PIECE);
            if ($piece === false) {
                break;
            }
            $read += strlen($piece);
            hash_update($hash, $piece);
        }
        fclose($stream);

        return $read === $this->sizes[$name] ? hash_final($hash) : null;
    }

    private static function shown(string $name): string
    {
        return mb_substr((string) preg_replace('/[^\x20-\x7E]/', '?', $name), 0, 200);
    }
}
