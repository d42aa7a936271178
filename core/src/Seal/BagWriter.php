<?php

declare(strict_types=1);

namespace NineTally\Core\Seal;

/**
 * Writes a bag (RFC 8493) into one zip with one folder at its top. Bytes of files are never held; the zip is written aside and renamed, so
 * that its name never stands for half a bag.
 */
final class BagWriter
{
    /** Names that every file system and every shell take: and what they unpack to is what was packed. */
    public const NAME = '~^[A-Za-z0-9._-]+(?:/[A-Za-z0-9._-]+)*$~D';

    public const MANIFEST = 'manifest-sha256.txt';

    public const TAG_MANIFEST = 'tagmanifest-sha256.txt';

    public const SEAL = 'seal/seal.json';

    public const SIGNATURE = 'seal/seal.sig';

    public const KEY = 'seal/key.pem';

    /** Of the seal, so no manifest can list it; the certificates that it is held against stand in the payload. */
    public const TIME_STAMP = 'seal/timestamp.tsr';

    public const AUTHORITY = 'data/keys/time-stamps.pem';

    public const DECLARATION = "BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n";

    /** @var array<string, string> SHA-256 by the path of a payload file */
    private array $payload = [];

    private int $bytes = 0;

    private readonly \ZipArchive $zip;

    private readonly string $aside;

    private function __construct(private readonly string $path, private readonly string $folder)
    {
        $this->aside = "{$path}.unfinished";
        $this->zip = new \ZipArchive;
        if ($this->zip->open($this->aside, \ZipArchive::CREATE | \ZipArchive::OVERWRITE) !== true) {
            throw UnwritablePack::at($path);
        }
    }

    /** @param string $folder at the top of the zip */
    public static function at(string $path, string $folder): self
    {
        if (preg_match(self::NAME, $folder) !== 1 || str_contains($folder, '/')) {
            throw new \LogicException("The folder of a bag cannot be called \"{$folder}\".");
        }

        return new self($path, $folder);
    }

    /** @param string $name below data/ */
    public function text(string $name, string $content): void
    {
        $this->enter($name, hash('sha256', $content), strlen($content));
        $this->add("data/{$name}", $content);
    }

    /**
     * @param  string  $name  below data/
     * @param  string  $path  of bytes that stay where they are until the bag is written
     */
    public function file(string $name, string $path): void
    {
        $digest = @hash_file('sha256', $path);
        if ($digest === false) {
            throw UnwritablePack::lacks($path);
        }
        $this->enter($name, $digest, (int) filesize($path));
        $entry = "{$this->folder}/data/{$name}";
        // To pack gigabytes smaller takes minutes, and whoever takes the file in ranges finds them where they are.
        $this->added($this->zip->addFile($path, $entry) && $this->zip->setCompressionName($entry, \ZipArchive::CM_STORE));
    }

    /**
     * @param  array<string, string>  $info  for bag-info.txt: what the bag is, by labels of RFC 8493, section 2.2.2
     * @param  array<string, string>  $tagFiles  further ones that the tag manifest lists, by their names
     * @param  callable(string): Seal  $seal  asked with the SHA-256 of the tag manifest
     * @param  (callable(Seal): TimeStamp)|null  $stamp  asked with the seal; null where no service is asked
     */
    public function finish(array $info, array $tagFiles, SealKey $key, callable $seal, ?callable $stamp = null): Seal
    {
        ksort($this->payload, SORT_STRING);
        $info += ['Payload-Oxum' => "{$this->bytes}.".count($this->payload)];
        $tagFiles = [
            'bag-info.txt' => implode(
                '',
                array_map(static fn(string $label, string $value): string => "{$label}: {$value}\n", array_keys($info), $info),
            ),
            'bagit.txt' => self::DECLARATION,
            self::MANIFEST => self::lines($this->payload),
            ...$tagFiles,
        ];
        ksort($tagFiles, SORT_STRING);
        $tagManifest = self::lines(array_map(static fn(string $content): string => hash('sha256', $content), $tagFiles));
        $sealed = $seal(hash('sha256', $tagManifest));
        $further = [
            self::TAG_MANIFEST => $tagManifest,
            self::SEAL => $sealed->statement,
            self::SIGNATURE => $sealed->signature,
            self::KEY => $key->publicPem(),
            ...$stamp === null ? [] : [self::TIME_STAMP => $stamp($sealed)->token],
        ];
        foreach ([...$tagFiles, ...$further] as $name => $content) {
            $this->add($name, $content);
        }
        if (! @$this->zip->close() || ! @rename($this->aside, $this->path)) {
            @unlink($this->aside);
            throw UnwritablePack::at($this->path);
        }

        return $sealed;
    }

    private function enter(string $name, string $digest, int $bytes): void
    {
        if (preg_match(self::NAME, $name) !== 1 || isset($this->payload["data/{$name}"])) {
            throw new \LogicException("A file of a bag cannot be called \"{$name}\", or stands there already.");
        }
        $this->payload["data/{$name}"] = $digest;
        $this->bytes += $bytes;
    }

    private function add(string $name, string $content): void
    {
        $this->added($this->zip->addFromString("{$this->folder}/{$name}", $content));
    }

    private function added(bool $isAdded): void
    {
        if (! $isAdded) {
            throw UnwritablePack::at($this->path);
        }
    }

    /** @param array<string, string> $digests by name */
    private static function lines(array $digests): string
    {
        return implode(
            '',
            array_map(static fn(string $name, string $digest): string => "{$digest}  {$name}\n", array_keys($digests), $digests),
        );
    }
}
