<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

/** Holds what is unpacked of an archive against what the archive says of it: its length and its CRC-32 (APPNOTE 6.3, 4.4.7 to 4.4.9). */
final class ArchiveChecksum
{
    private \HashContext $hash;

    private int $bytes = 0;

    private function __construct(private readonly int $size, private readonly int $crc, private readonly string $name)
    {
        $this->hash = hash_init('crc32b');
    }

    /** @param string $name the archive as the person knows it, for messages */
    public static function of(\ZipArchive $archive, string $file, string $name): self
    {
        /** @var array{size: int, crc: int}|false $facts */
        $facts = $archive->statName($file);

        return $facts === false ? throw UnreadableFile::breaksOff($name) : new self($facts['size'], $facts['crc'], $name);
    }

    /**
     * @param  string|false  $block  false: it could not be unpacked
     *
     * @throws UnreadableFile at the first byte too many, for what bursts says less of itself than it is
     */
    public function add(string|false $block): void
    {
        if ($block === false || ($this->bytes += strlen($block)) > $this->size) {
            throw UnreadableFile::breaksOff($this->name);
        }
        hash_update($this->hash, $block);
    }

    /** @throws UnreadableFile when all was added and it is not what was packed */
    public function mustHold(): void
    {
        if ($this->bytes !== $this->size || hexdec(hash_final($this->hash)) !== $this->crc) {
            throw UnreadableFile::breaksOff($this->name);
        }
    }
}
