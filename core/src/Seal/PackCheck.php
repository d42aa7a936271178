<?php

declare(strict_types=1);

namespace NineTally\Core\Seal;

/**
 * Holds a pack against its manifests, its seal and a key, file by file. What is no pack, or would do harm when it is unpacked, is refused
 * before a byte of it is believed. Files are read in pieces and never unpacked.
 */
final class PackCheck
{
    /** @var list<CheckLine> */
    private array $lines = [];

    private function __construct(private readonly PackedFiles $files) {}

    /** @param string|null $fingerprint of the key that whoever checks knows to be right; null where nobody has confirmed one */
    public static function of(string $path, ?string $fingerprint = null): CheckedPack
    {
        $files = PackedFiles::open($path);
        if ($files === null) {
            return new CheckedPack([
                CheckLine::differs(basename($path), 'This is no zip, or it is damaged, so nothing of it can be checked.'),
            ]);
        }
        try {
            return (new self($files))->check(
                $fingerprint === null ? null : strtolower((string) preg_replace('/[^0-9A-Fa-f]/', '', $fingerprint)),
            );
        } finally {
            $files->close();
        }
    }

    private function check(?string $fingerprint): CheckedPack
    {
        $refusal = $this->files->refusal();
        if ($refusal !== null) {
            return new CheckedPack([$refusal]);
        }
        $this->declaration();
        $payload = $this->manifest(BagWriter::MANIFEST);
        $tags = $this->manifest(BagWriter::TAG_MANIFEST);
        $this->complete($payload, $tags);
        $whole = $this->digests([...$payload, ...$tags]);
        if ($this->fits()) {
            $this->lines[] = CheckLine::fits(sprintf('All %s files are byte for byte what the manifests say.', number_format($whole)));
        }
        $sealed = SealCheck::of($this->files, $this->fits(), $fingerprint);

        return new CheckedPack([...$this->lines, ...$sealed->lines], $sealed->fingerprint);
    }

    private function declaration(): void
    {
        if ($this->files->content('bagit.txt') !== BagWriter::DECLARATION) {
            $this->lines[] = CheckLine::differs(
                'bagit.txt',
                'It does not say that this is a bag of version 1.0 in UTF-8 (RFC 8493, section 2.1.1).',
            );
        }
    }

    /** @return array<string, string> digest by path; none where it cannot be read */
    private function manifest(string $name): array
    {
        $content = $this->files->content($name);
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
        $unlisted = [BagWriter::TAG_MANIFEST, BagWriter::SEAL, BagWriter::SIGNATURE, BagWriter::KEY, BagWriter::TIME_STAMP];
        foreach (['bagit.txt', 'bag-info.txt', BagWriter::MANIFEST] as $name) {
            if (! isset($tags[$name])) {
                $this->lines[] = CheckLine::differs($name, 'The tag manifest does not list it, so nothing vouches for it.');
            }
        }
        foreach ($this->files->names() as $name) {
            $isListed = str_starts_with($name, 'data/') ? isset($payload[$name]) : isset($tags[$name]) || in_array($name, $unlisted, true);
            if (! $isListed) {
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
            if (! $this->files->has($name)) {
                $this->lines[] = CheckLine::differs($name, 'The manifest lists this file, and it is missing.');
            } elseif ($this->files->digest($name) !== $digest) {
                $this->lines[] = CheckLine::differs($name, 'This file was changed: its SHA-256 is not the one in the manifest.');
            } else {
                $whole++;
            }
        }

        return $whole;
    }

    private function fits(): bool
    {
        return (new CheckedPack($this->lines))->fits();
    }
}
