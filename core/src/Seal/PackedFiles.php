<?php

declare(strict_types=1);

namespace NineTally\Core\Seal;

/** The files of a pack, read from the zip in pieces and never unpacked. */
final class PackedFiles
{
    private const MOST_FILES = 200_000;

    /** A file that would unpack to more than so many times its size in the zip is a trap: text packs 20 times smaller, seldom 100 times. */
    private const MOST_TIMES = 500;

    /** Of what is read whole: manifests, seal, key. */
    private const MOST_TAG_BYTES = 64 * 1024 * 1024;

    private const PIECE = 1_048_576;

    private string $folder = '';

    /** @var array<string, int> size as the zip says, by the path below the folder */
    private array $sizes = [];

    private function __construct(private readonly \ZipArchive $zip) {}

    /** @return self|null null where it is no zip */
    public static function open(string $path): ?self
    {
        $zip = new \ZipArchive;

        return @$zip->open($path, \ZipArchive::RDONLY) === true ? new self($zip) : null;
    }

    public function close(): void
    {
        $this->zip->close();
    }

    /** @return list<string> */
    public function names(): array
    {
        return array_map(strval(...), array_keys($this->sizes));
    }

    public function has(string $name): bool
    {
        return isset($this->sizes[$name]);
    }

    /** @return CheckLine|null why it is refused, before a byte of it is believed */
    public function refusal(): ?CheckLine
    {
        $seen = [];
        if ($this->zip->numFiles === 0 || $this->zip->numFiles > self::MOST_FILES) {
            return CheckLine::differs(
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
                return CheckLine::differs(
                    self::shown($name),
                    'This name leads outside of the pack, or has characters that no pack uses. The pack is refused.',
                );
            }
            if (isset($seen[strtolower($name)])) {
                return CheckLine::differs($name, 'This name stands twice, and nobody can tell which one is meant. The pack is refused.');
            }
            $seen[strtolower($name)] = true;
            if ($stat['size'] > self::PIECE && $stat['size'] > self::MOST_TIMES * max(1, $stat['comp_size'])) {
                return CheckLine::differs($name, 'This file would unpack to far more than it is: a trap. The pack is refused.');
            }
            [$folder, $file] = [...explode('/', $name, 2), ''];
            if ($file === '' || ($this->folder !== '' && $folder !== $this->folder)) {
                return CheckLine::differs($name, 'A pack has one folder at its top, and everything in it. The pack is refused.');
            }
            $this->folder = $folder;
            $this->sizes[$file] = $stat['size'];
        }

        return null;
    }

    /** @return string|null null where it is not there, or too long to be what it should be */
    public function content(string $name): ?string
    {
        if (! isset($this->sizes[$name]) || $this->sizes[$name] > self::MOST_TAG_BYTES) {
            return null;
        }
        $content = $this->zip->getFromName("{$this->folder}/{$name}");

        return is_string($content) && strlen($content) === $this->sizes[$name] ? $content : null;
    }

    /** @return string|null null where it cannot be read to its end */
    public function digest(string $name): ?string
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
