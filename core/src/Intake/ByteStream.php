<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

/** The bytes of a file, unpacked where they are compressed with gzip (RFC 1952) or are the only file of a zip archive. Holds a block. */
final class ByteStream
{
    private const GZIP = "\x1F\x8B";

    private ?\InflateContext $inflating = null;

    private bool $hasEnded = false;

    private readonly ?ArchiveChecksum $checksum;

    /** Of a file that is packed with gzip: unpacked and not given yet. */
    private string $unpacked = '';

    /** @var positive-int packed bytes that are taken at once */
    private int $bite = 128;

    private int $packedBytes = 0;

    private int $unpackedBytes = 0;

    /**
     * @param  resource  $file
     * @param  Archive|null  $archive  that the file is a stream of: the stream ends with it
     */
    private function __construct(
        private readonly mixed $file,
        private readonly string $name,
        public readonly bool $isPacked,
        bool $isGzip,
        public readonly ?Archive $archive = null,
    ) {
        $this->checksum = $archive?->checksum();
        if ($isGzip) {
            $this->inflating = $this->begin();
        }
    }

    /**
     * @param  string  $name  the file as the person knows it, for messages
     *
     * @throws UnreadableFile
     */
    public static function open(string $path, string $name): self
    {
        $file = is_dir($path) ? throw UnreadableFile::isFolder($name) : @fopen($path, 'rb');
        if ($file === false) {
            throw UnreadableFile::cannotBeOpened($name);
        }
        $beginning = (string) fread($file, 4);
        rewind($file);
        if ($beginning === Archive::BEGINNING && ($archive = Archive::open($path, $name))->workbook === null) {
            fclose($file);

            return new self($archive->stream(), $name, true, false, $archive);
        }
        $isGzip = str_starts_with($beginning, self::GZIP);

        return new self($file, $name, $isGzip, $isGzip);
    }

    /**
     * @param  positive-int  $bytes
     * @return string at most $bytes bytes; '' at the end
     *
     * @throws UnreadableFile when a packed file is damaged or breaks off: never is a part of it taken for all
     */
    public function read(int $bytes): string
    {
        if ($this->inflating === null) {
            return $this->block($bytes);
        }
        while (strlen($this->unpacked) < $bytes) {
            $packed = $this->block($this->bite);
            if ($packed === '') {
                if ($this->unpacked === '' && ! $this->hasEnded) {
                    throw UnreadableFile::breaksOff($this->name);
                }
                break;
            }
            $before = strlen($this->unpacked);
            $this->unpacked .= $this->unpack($packed);
            $this->mustNotBurst(strlen($packed), strlen($this->unpacked) - $before);
            // A byte can become a thousand: how many are taken at once follows what the last ones became.
            $this->bite = strlen($this->unpacked) - $before > $bytes ? max(64, intdiv($this->bite, 4)) : min(32_768, $this->bite * 2);
        }
        $given = substr($this->unpacked, 0, $bytes);
        $this->unpacked = substr($this->unpacked, $bytes);

        return $given;
    }

    /** @throws UnreadableFile when it was made to burst, as {@see Archive} tells it */
    private function mustNotBurst(int $packed, int $unpacked): void
    {
        $this->packedBytes += $packed;
        $this->unpackedBytes += $unpacked;
        if (Archive::bursts($this->packedBytes, $this->unpackedBytes)) {
            throw UnreadableFile::isTooLargeUnpacked($this->name, sprintf('it grows to more than %d times its size', Archive::MOST_RATIO));
        }
    }

    /** @param positive-int $bytes */
    private function block(int $bytes): string
    {
        $block = @fread($this->file, $bytes);
        $this->checksum?->add($block);
        if ($block === false) {
            throw UnreadableFile::cannotBeRead($this->name);
        }
        if ($block === '' && ! $this->hasEnded) {
            $this->hasEnded = $this->inflating === null;
            $this->checksum?->mustHold();
        }

        return $block;
    }

    /** Where reading of a plain file goes on. */
    public function seek(int $offset): void
    {
        fseek($this->file, $offset);
    }

    /** @return int bytes of the file itself that have been read */
    public function position(): int
    {
        return (int) ftell($this->file);
    }

    public function close(): void
    {
        fclose($this->file);
    }

    private function unpack(string $packed): string
    {
        $unpacked = '';
        while ($packed !== '' && $this->inflating !== null) {
            // Several packed files in a row are one (RFC 1952, section 2.2).
            if ($this->hasEnded) {
                $this->inflating = $this->begin();
            }
            $before = inflate_get_read_len($this->inflating);
            $piece = @inflate_add($this->inflating, $packed);
            if ($piece === false) {
                throw UnreadableFile::breaksOff($this->name);
            }
            $unpacked .= $piece;
            $this->hasEnded = inflate_get_status($this->inflating) === ZLIB_STREAM_END;
            $packed = $this->hasEnded ? substr($packed, inflate_get_read_len($this->inflating) - $before) : '';
            if ($this->hasEnded && trim($packed, "\0") === '') {
                $packed = '';
            }
        }

        return $unpacked;
    }

    private function begin(): \InflateContext
    {
        $this->hasEnded = false;

        return inflate_init(ZLIB_ENCODING_GZIP) ?: throw new \LogicException('zlib cannot begin.');
    }
}
