<?php

declare(strict_types=1);

namespace App\Adapters\Sources\Files;

use App\Adapters\Sources\SourceProblem;
use League\Flysystem\Filesystem;
use League\Flysystem\FilesystemReader;
use League\Flysystem\PhpseclibV3\SftpAdapter;
use League\Flysystem\UnableToReadFile;

/** A folder of another machine, by SFTP. */
final readonly class SftpStore implements FileStore
{
    private const BYTES_AT_ONCE = 4_194_304;

    public function __construct(private SftpDoor $door, private string $folder) {}

    public function enter(): FilesystemReader
    {
        $connection = $this->door->provideConnection();
        if ($this->folder !== '' && ! $connection->is_dir($this->folder)) {
            throw new SourceProblem("There is no folder {$this->folder} there, or this user may not enter it. Check the name.");
        }

        return new Filesystem(new SftpAdapter($this->door, $this->folder === '' ? '.' : $this->folder));
    }

    /** Asked for by stretches: as a stream it would be fetched as a whole before the first byte is seen. */
    public function blocks(FilesystemReader $place, string $name): \Generator
    {
        $connection = $this->door->provideConnection();
        $path = $this->folder === '' ? $name : "{$this->folder}/{$name}";
        $offset = 0;
        do {
            try {
                $block = $connection->get($path, false, $offset, self::BYTES_AT_ONCE);
            } catch (\RuntimeException $thrown) {
                throw UnableToReadFile::fromLocation($name, previous: $thrown);
            }
            if (! is_string($block)) {
                throw UnableToReadFile::fromLocation($name);
            }
            yield $block;
            $offset += strlen($block);
        } while (strlen($block) === self::BYTES_AT_ONCE);
    }

    public function problem(\Throwable $thrown): SourceProblem
    {
        return new SourceProblem('It broke off, or this user may not read all of it. Try again, or ask for the right', previous: $thrown);
    }
}
