<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

/** A zip archive, looked at from outside before anything of it is unpacked. Names in it are shown, and never used as paths. */
final readonly class Archive
{
    public const BEGINNING = "PK\x03\x04";

    private const MOST_ENTRIES = 10_000;

    private const MOST_BYTES = 64 * 1024 * 1024 * 1024;

    /** Tables of text shrink to a twentieth, now and then to a hundredth; what shrinks much further was made to burst. */
    public const MOST_RATIO = 250;

    private const SMALL_BYTES = 16 * 1024 * 1024;

    private const BLOCK_BYTES = 131_072;

    private const MOST_SHARED_STRING_BYTES = 512 * 1024 * 1024;

    /**
     * @param  PartKind|null  $workbook  what kind of workbook it is, if it is one
     * @param  list<string>  $files  names of the files in it, without folders and what systems add by themselves
     */
    private function __construct(private \ZipArchive $archive, private string $name, public ?PartKind $workbook, public array $files) {}

    /** @throws UnreadableFile when it is damaged, locked, or made to burst */
    public static function open(string $path, string $name): self
    {
        $archive = new \ZipArchive;
        if ($archive->open($path, \ZipArchive::RDONLY) !== true) {
            throw UnreadableFile::breaksOff($name);
        }
        $names = self::names($archive, $name);
        $type = $archive->getFromName('mimetype', 200);
        $workbook = match (true) {
            in_array('xl/workbook.xml', $names, true) => PartKind::Xlsx,
            $type === 'application/vnd.oasis.opendocument.spreadsheet' => PartKind::Ods,
            default => null,
        };

        return new self(
            $archive,
            $name,
            $workbook,
            array_values(
                array_filter(
                    $names,
                    static fn(string $file): bool => ! str_ends_with($file, '/') &&
                        ! str_starts_with($file, '__MACOSX/') &&
                        basename($file) !== '.DS_Store',
                ),
            ),
        );
    }

    /**
     * The only file in it, as a stream that lasts as long as this archive.
     *
     * @return resource
     *
     * @throws UnreadableFile when it holds none, or several
     */
    public function stream(): mixed
    {
        if (count($this->files) !== 1) {
            throw UnreadableFile::holdsSeveralFiles($this->name, count($this->files));
        }
        $stream = $this->archive->getStream($this->files[0]);

        return $stream === false ? throw UnreadableFile::breaksOff($this->name) : $stream;
    }

    /** What the archive says of the only file in it, for whoever reads its stream. */
    public function checksum(): ArchiveChecksum
    {
        return ArchiveChecksum::of($this->archive, $this->files[0], $this->name);
    }

    /**
     * Reads all of its files once, for a workbook that is damaged somewhere is still read, with other values.
     *
     * @throws UnreadableFile when one is not as the archive says
     */
    public function mustBeWhole(): void
    {
        foreach ($this->files as $file) {
            $checksum = $this->archive->statName($file) === false ? null : ArchiveChecksum::of($this->archive, $file, $this->name);
            $stream = $this->archive->getStream($file);
            if ($checksum === null || $stream === false) {
                throw UnreadableFile::breaksOff($this->name);
            }
            do {
                $block = @fread($stream, self::BLOCK_BYTES);
                $checksum->add($block);
            } while ($block !== '' && $block !== false);
            fclose($stream);
            $checksum->mustHold();
        }
    }

    /**
     * Writes one of its files out, byte for byte, and no more than the archive says that it has.
     *
     * @throws UnreadableFile when it is damaged
     */
    public function unpack(string $file, string $path): void
    {
        /** @var array{size: int}|false $facts */
        $facts = $this->archive->statName($file);
        $from = $this->archive->getStream($file);
        $to = @fopen($path, 'xb');
        if ($facts === false || $from === false || $to === false) {
            throw UnreadableFile::breaksOff($this->name);
        }
        $checksum = ArchiveChecksum::of($this->archive, $file, $this->name);
        try {
            do {
                $block = @fread($from, self::BLOCK_BYTES);
                $checksum->add($block);
                if (fwrite($to, (string) $block) !== strlen((string) $block)) {
                    throw new \RuntimeException('The storage could not be written; the disk may be full.');
                }
            } while ($block !== '' && $block !== false);
            $checksum->mustHold();
        } catch (\Throwable $problem) {
            unlink($path);
            throw $problem;
        } finally {
            fclose($from);
            fclose($to);
        }
    }

    /** Whether so much of so little is no table, but made to fill a disk. */
    public static function bursts(int $packed, int $unpacked): bool
    {
        return $unpacked > self::SMALL_BYTES && $unpacked > self::MOST_RATIO * max(1, $packed);
    }

    /** The name of one of its files without its folders, and without characters that cannot be seen. */
    public static function shownName(string $file): string
    {
        $name = self::visible(basename(str_replace('\\', '/', $file)));

        return $name === '' ? 'file without a name' : $name;
    }

    /** @return list<string> */
    private static function names(\ZipArchive $archive, string $name): array
    {
        if ($archive->numFiles > self::MOST_ENTRIES) {
            throw UnreadableFile::isTooLargeUnpacked($name, sprintf('it holds %s files', number_format($archive->numFiles)));
        }
        $names = [];
        $bytes = $packed = 0;
        for ($entry = 0; $entry < $archive->numFiles; $entry++) {
            /** @var array{name: string, size: int, comp_size: int, encryption_method: int} $facts */
            $facts = $archive->statIndex($entry);
            $names[] = $facts['name'];
            $bytes += $facts['size'];
            $packed += $facts['comp_size'];
            // Many small ones are large together.
            if ($bytes > self::MOST_BYTES || self::bursts($packed, $bytes) || self::bursts($facts['comp_size'], $facts['size'])) {
                throw UnreadableFile::isTooLargeUnpacked(
                    $name,
                    sprintf('"%s" in it would grow to %s bytes', self::visible($facts['name']), number_format($facts['size'])),
                );
            }
            if (str_ends_with($facts['name'], 'sharedStrings.xml') && $facts['size'] > self::MOST_SHARED_STRING_BYTES) {
                throw UnreadableFile::isTooLargeUnpacked($name, 'its shared texts are too many');
            }
            if ($facts['encryption_method'] !== \ZipArchive::EM_NONE) {
                throw UnreadableFile::hasPassword($name);
            }
        }

        return $names;
    }

    /** Names in archives come from anywhere: characters that cannot be seen are not shown. */
    private static function visible(string $name): string
    {
        return preg_replace('/\p{C}/u', '', mb_scrub(mb_strcut($name, 0, 200))) ?? '';
    }
}
